import type { Command } from './command';
import type { Thing } from './kind';
import { kindOf } from './table';

/** A thing as one text, its parts apart by a character that no text of a plan holds. */
const keyOf = (thing: Thing, length = thing.length): string => thing.slice(0, length).join('\0');

function eachSingle(command: Command, look: (single: Exclude<Command, { do: 'all' }>) => void): void {
  if (command.do === 'all') for (const one of command.commands) eachSingle(one, look);
  else look(command);
}

/** What a command writes and relies on. */
class Footprint {
  private readonly written = new Set<string>();
  /** Everything of which some part is written. */
  private readonly holding = new Set<string>();
  private readonly things: { writes: Thing[]; relies: Thing[] } = { writes: [], relies: [] };

  constructor(command: Command) {
    eachSingle(command, (single) => {
      const kind = kindOf(single);
      for (const thing of kind.writes(single)) {
        this.things.writes.push(thing);
        this.written.add(keyOf(thing));
        for (let k = 1; k < thing.length; k++) this.holding.add(keyOf(thing, k));
      }
      for (const thing of kind.relies(single)) this.things.relies.push(thing);
    });
  }

  /**
   * Whether one of two commands writes a thing, a part of it or what it is a part of, that the other writes; or a
   * thing that the other relies on, or what that is a part of.
   */
  meets(other: Footprint): boolean {
    return (
      this.things.writes.some((thing) => other.writes(thing) || other.holding.has(keyOf(thing))) ||
      this.things.relies.some((thing) => other.writes(thing)) ||
      other.things.relies.some((thing) => this.writes(thing))
    );
  }

  /** Whether it writes a thing as a whole. */
  private writes(thing: Thing): boolean {
    for (let k = 1; k <= thing.length; k++) if (this.written.has(keyOf(thing, k))) return true;
    return false;
  }
}

/**
 * Whether two commands that were made on the same plan are about the same, so that the one that comes later would
 * overrule the other, or mean something else than it did.
 */
export const collide = (a: Command, b: Command): boolean => new Footprint(a).meets(new Footprint(b));

/** Finds which of several things done a command collides with, as {@link collide}; the command is looked at once. */
export function collidesWith(command: Command): (done: Command) => boolean {
  const own = new Footprint(command);
  return (done) => own.meets(new Footprint(done));
}
