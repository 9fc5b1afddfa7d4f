import { applyCommand, collide, type Command, CommandRefused, type Plan } from '@clembo/core';
import type { Asked, Step } from '../src/index';

type Kept = Step & { command: Command; person: string };
interface Change {
  person: string;
  command: Command;
  inverse: Command;
  undone: boolean;
}
export type Answer = { steps: Step[] } | { message: string; status: number };

/** The one who keeps a plan, as simply as can be: as the server does it, without a database. */
export class Keeper {
  version = 1;
  readonly steps: Kept[] = [];
  private readonly answers = new Map<string, number>();
  private readonly changes: Change[] = [];

  constructor(public plan: Plan) {}

  since(version: number): Step[] {
    return this.steps.filter((s) => s.version > version).map(({ person: _, ...step }) => step);
  }

  /** What is asked for again is answered again and not done again. */
  ask(person: string, id: string, base: number, asked: Asked): Answer {
    if (this.answers.has(id)) return { steps: this.since(base) };
    const chosen = this.choose(person, asked);
    if ('message' in chosen) return chosen;
    const { command } = chosen;
    if (this.steps.some((s) => s.version > base && collide(s.command, command)))
      return { message: 'somebody was quicker', status: 409 };
    try {
      const { plan, inverse } = applyCommand(this.plan, command);
      chosen.keep(inverse);
      this.plan = plan;
    } catch (error) {
      if (!(error instanceof CommandRefused)) throw error;
      return { message: error.message, status: 409 };
    }
    this.version++;
    this.steps.push({ version: this.version, command, request: id, person });
    this.answers.set(id, this.version);
    return { steps: this.since(base) };
  }

  private choose(
    person: string,
    asked: Asked,
  ): { command: Command; keep: (inverse: Command) => void } | { message: string; status: number } {
    if (asked.kind === 'change')
      return {
        command: asked.command,
        keep: (inverse) => this.changes.push({ person, command: asked.command, inverse, undone: false }),
      };
    if (asked.kind === 'turnTo') throw new Error('not simulated');
    const own = this.changes.filter((c) => c.person === person && c.undone !== asked.undo);
    const change = asked.undo ? own.at(-1) : own[0];
    if (!change) return { message: 'nothing to turn', status: 409 };
    const command = asked.undo ? change.inverse : change.command;
    const later = this.changes.slice(this.changes.indexOf(change) + 1);
    if (later.some((c) => !c.undone && collide(c.command, command)))
      return { message: 'somebody changed the same', status: 422 };
    return {
      command,
      keep: (inverse) => {
        change.undone = asked.undo;
        if (asked.undo) change.command = inverse;
        else change.inverse = inverse;
      },
    };
  }
}
