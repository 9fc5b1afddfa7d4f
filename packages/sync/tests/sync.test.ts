import { describe, expect, test } from '@jest/globals';
import {
  applyCommand,
  collide,
  type Command,
  CommandRefused,
  FIVE_DAY,
  makeActivity,
  makeField,
  makeLink,
  makePlan,
  type Plan,
} from '@clembo/core';
import fc from 'fast-check';
import { type Asked, type Effect, type Event, next, opened, RECENT, type Reason, type State } from '../src/index';
import { type Answer, Keeper } from './keeper';

const REFS = ['A', 'B', 'C', 'D'];
const PLAN = makePlan({
  name: 'Together',
  calendars: [FIVE_DAY],
  calendar: FIVE_DAY.id,
  codeFields: [makeField({ id: 'zone', name: 'Zone' })],
  activities: REFS.map((ref) => makeActivity({ ref, name: ref })),
  links: [makeLink({ from: 'A', to: 'B' })],
});
const rename = (ref: string, name: string): Command => ({ do: 'changeActivity', ref, part: { name } });
const change = (command: Command): Asked => ({ kind: 'change', command });
const nameOf = (plan: Plan, ref: string) => plan.activities.find((a) => a.ref === ref)?.name;

/** A state after events one after the other, with the effects of the last. */
function after(
  events: Event[],
  from = opened(PLAN, 1),
): { state: State; effects: Effect[]; touched: readonly string[] } {
  let now = { state: from, effects: [] as Effect[], touched: [] as readonly string[] };
  for (const event of events) now = next(now.state, event);
  return now;
}

describe('one person', () => {
  test('sees a change at once; it is sent, kept, and the next goes on its way', () => {
    const asking: Event[] = [
      { kind: 'asked', id: '1', asked: change(rename('A', 'x')), seen: 1 },
      { kind: 'asked', id: '2', asked: change(rename('B', 'y')), seen: 1 },
    ];
    const both = after(asking);
    expect([nameOf(both.state.shown, 'A'), nameOf(both.state.confirmed, 'A'), both.touched]).toEqual(['x', 'A', ['B']]);
    expect(after([asking[0]!]).effects).toEqual([
      { do: 'send', id: '1', version: 1, asked: change(rename('A', 'x')), isAgain: false },
    ]);
    expect(both.effects).toEqual([]);
    const kept = next(both.state, { kind: 'answered', id: '1', steps: [{ version: 2, command: null, request: '1' }] });
    expect(kept.effects).toEqual([
      { do: 'kept', id: '1' },
      { do: 'send', id: '2', version: 2, asked: change(rename('B', 'y')), isAgain: false },
    ]);
    expect([kept.state.version, nameOf(kept.state.confirmed, 'A')]).toEqual([2, 'x']);
  });

  test('what is not answered is sent again as it was, also when its step has come meanwhile', () => {
    const sent = after([{ kind: 'asked', id: '1', asked: change(rename('A', 'x')), seen: 1 }]);
    const again = { do: 'send', id: '1', version: 1, asked: change(rename('A', 'x')), isAgain: true };
    expect(next(sent.state, { kind: 'unanswered', id: '1' }).effects).toEqual([again]);
    const step = { version: 2, command: rename('A', 'x'), request: '1' };
    const landed = next(sent.state, { kind: 'steps', version: 2, steps: [step] });
    expect([landed.effects, landed.state.pending]).toEqual([[], []]);
    expect(next(landed.state, { kind: 'unanswered', id: '1' }).effects).toEqual([again]);
    expect(next(landed.state, { kind: 'answered', id: '1', steps: [step] }).effects).toEqual([{ do: 'kept', id: '1' }]);
  });

  test('what does not fit is refused at once, and what follows from something refused ends with it', () => {
    expect(after([{ kind: 'asked', id: '1', asked: change(rename('Z', 'x')), seen: 1 }]).effects).toEqual([
      { do: 'refused', id: '1', reason: { kind: 'unfit', message: 'There is no activity Z in the plan (any more).' } },
    ]);
    const { state, effects } = after([
      {
        kind: 'asked',
        id: '1',
        asked: change({ do: 'addActivity', activity: makeActivity({ ref: 'N' }), before: null }),
        seen: 1,
      },
      { kind: 'asked', id: '2', asked: change(rename('N', 'x')), seen: 1 },
      { kind: 'asked', id: '3', asked: change(rename('A', 'x')), seen: 1 },
      { kind: 'refused', id: '1', message: 'no', status: 422 },
    ]);
    expect(effects.map((e) => [e.do, 'id' in e ? e.id : null])).toEqual([
      ['refused', '1'],
      ['refused', '2'],
      ['fetch', null],
      ['send', '3'],
    ]);
    expect([state.shown.activities.length, nameOf(state.shown, 'A')]).toEqual([4, 'x']);
  });
});

describe('with others', () => {
  const theirs = (version: number, command: Command) => ({ version, command, request: 'theirs' });

  test('what waits and was overtaken ends, and is not sent with a version that hides it', () => {
    const { state, effects } = after([
      { kind: 'asked', id: '1', asked: change(rename('A', 'x')), seen: 1 },
      { kind: 'asked', id: '2', asked: change(rename('B', 'mine')), seen: 1 },
      { kind: 'steps', version: 2, steps: [theirs(2, rename('B', 'theirs'))] },
    ]);
    expect(effects).toEqual([{ do: 'refused', id: '2', reason: { kind: 'overtaken' } }]);
    expect([nameOf(state.shown, 'A'), nameOf(state.shown, 'B')]).toEqual(['x', 'theirs']);
    expect(state.underWay).toMatchObject({ version: 1 });
  });

  test('what was made before a step of others was seen is overtaken too', () => {
    const seen = after([{ kind: 'steps', version: 2, steps: [theirs(2, rename('B', 'theirs'))] }]).state;
    const late: Event = { kind: 'asked', id: '1', asked: change(rename('B', 'mine')), seen: 1 };
    expect(next(seen, late).effects).toEqual([{ do: 'refused', id: '1', reason: { kind: 'overtaken' } }]);
    expect(next(seen, { ...late, seen: 2 }).effects).toMatchObject([{ do: 'send', version: 2 }]);
  });

  test('what was made before more steps than are remembered is not kept: nobody knows what it would overrule', () => {
    const steps = Array.from({ length: RECENT + 1 }, (_, k) => theirs(k + 2, rename('B', `b${k}`)));
    const { state } = after([{ kind: 'steps', version: RECENT + 2, steps }]);
    const late = (seen: number): Event => ({ kind: 'asked', id: '1', asked: change(rename('A', 'mine')), seen });
    expect(next(state, late(1)).effects).toEqual([{ do: 'refused', id: '1', reason: { kind: 'overtaken' } }]);
    expect(next(state, late(RECENT)).effects).toMatchObject([{ do: 'send' }]);
  });

  test('what is kept beyond the steps that are known is said to be kept, and the plan is opened anew', () => {
    const sent = after([{ kind: 'asked', id: '1', asked: change(rename('A', 'x')), seen: 1 }]).state;
    expect(next(sent, { kind: 'answered', id: '1', steps: null }).effects).toEqual([
      { do: 'kept', id: '1' },
      { do: 'reopen' },
    ]);
  });

  test('steps that are missing are asked for, those that were had are left, and where none are known all is opened', () => {
    const { state } = after([{ kind: 'steps', version: 2, steps: [theirs(2, rename('B', 'x'))] }]);
    expect(next(state, { kind: 'steps', version: 5, steps: [theirs(5, rename('B', 'y'))] }).effects).toEqual([
      { do: 'fetch', after: 2 },
    ]);
    expect(next(state, { kind: 'steps', version: 2, steps: [theirs(2, rename('B', 'x'))] })).toMatchObject({
      state,
      effects: [],
    });
    expect(next(state, { kind: 'steps', version: 9, steps: null }).effects).toEqual([{ do: 'reopen' }]);
  });
});

/** One who takes part, with a driver that does what the effects say over a bad line. */
class Person {
  state: State;
  readonly told = new Map<string, 'kept' | 'reopened' | Reason>();
  readonly made = new Map<string, { asked: Asked; seen: number }>();
  readonly sent: Extract<Effect, { do: 'send' }>[] = [];
  readonly answers: { id: string; answer: Answer }[] = [];

  constructor(
    readonly name: string,
    private readonly keeper: Keeper,
  ) {
    this.state = opened(keeper.plan, keeper.version);
  }

  ask(what: Asked, seen = this.state.version): void {
    const id = `${this.name}${this.made.size}`;
    this.made.set(id, { asked: what, seen });
    this.take({ kind: 'asked', id, asked: what, seen });
  }

  take(event: Event): void {
    const { state, effects } = next(this.state, event);
    this.state = state;
    const shown = state.pending.reduce((plan, p) => {
      if (p.asked.kind !== 'change') return plan;
      try {
        return applyCommand(plan, p.asked.command).plan;
      } catch (error) {
        if (error instanceof CommandRefused) return plan;
        throw error;
      }
    }, state.confirmed);
    expect(state.shown).toEqual(shown);
    for (const effect of effects) this.perform(effect);
  }

  private perform(effect: Effect): void {
    if (effect.do === 'send') this.sent.push(effect);
    else if (effect.do === 'fetch') this.hear();
    else if (effect.do === 'reopen') {
      this.state = opened(this.keeper.plan, this.keeper.version);
      for (const id of this.made.keys()) if (!this.told.has(id)) this.told.set(id, 'reopened');
    } else {
      expect([effect.id, this.told.has(effect.id)]).toEqual([effect.id, false]);
      this.told.set(effect.id, effect.do === 'kept' ? 'kept' : effect.reason);
    }
  }

  /** The line brings what the keeper did. */
  hear(from = this.state.version): void {
    this.take({ kind: 'steps', version: this.keeper.version, steps: this.keeper.since(from) });
  }

  /** Something that was sent reaches the keeper; its answer may be lost. */
  reach(at: number, isLost: boolean): void {
    const message = this.sent[at % Math.max(1, this.sent.length)];
    if (!message) return;
    const answer = this.keeper.ask(this.name, message.id, message.version, message.asked);
    this.sent.splice(this.sent.indexOf(message), 1);
    if (isLost) this.take({ kind: 'unanswered', id: message.id });
    else this.answers.push({ id: message.id, answer });
  }

  /** An answer comes back, perhaps twice. */
  answer(at: number, isTwice: boolean): void {
    const found = this.answers[at % Math.max(1, this.answers.length)];
    if (!found) return;
    if (!isTwice) this.answers.splice(this.answers.indexOf(found), 1);
    const { id, answer } = found;
    this.take('steps' in answer ? { kind: 'answered', id, steps: answer.steps } : { kind: 'refused', id, ...answer });
  }

  /** All that is open comes to its end. */
  drain(): void {
    while (this.sent.length > 0 || this.answers.length > 0) {
      this.reach(0, false);
      this.answer(0, false);
    }
    this.hear();
  }
}

const ref = fc.constantFrom(...REFS, 'N', 'M');
const command: fc.Arbitrary<Command> = fc.oneof(
  fc.record({ ref, name: fc.constantFrom('x', 'y', 'z') }).map(({ ref: r, name }) => rename(r, name)),
  fc
    .record({ ref, parent: fc.option(ref) })
    .map(({ ref: r, parent }): Command => ({ do: 'changeActivity', ref: r, part: { parent } })),
  fc
    .record({ ref, before: fc.option(ref) })
    .map(({ ref: r, before }): Command => ({ do: 'addActivity', activity: makeActivity({ ref: r }), before })),
  ref.map((r): Command => ({ do: 'removeActivity', ref: r })),
  fc
    .record({ ref, before: fc.option(ref) })
    .map(({ ref: r, before }): Command => ({ do: 'moveActivity', ref: r, before })),
  fc.tuple(ref, ref).map(([from, to]): Command => ({ do: 'addLink', link: makeLink({ from, to }) })),
  ref.map((r): Command => ({ do: 'recode', field: 'zone', codes: [[r, 'n']] })),
);
const what: fc.Arbitrary<Asked> = fc.oneof(
  { arbitrary: command.map(change), weight: 5 },
  fc.record({ kind: fc.constant('turn' as const), undo: fc.boolean() }),
);
const action = fc.record({
  who: fc.nat(2),
  does: fc.oneof(
    { arbitrary: fc.record({ do: fc.constant('ask' as const), what, behind: fc.nat(1) }), weight: 3 },
    { arbitrary: fc.record({ do: fc.constant('reach' as const), at: fc.nat(3), isLost: fc.boolean() }), weight: 4 },
    { arbitrary: fc.record({ do: fc.constant('answer' as const), at: fc.nat(3), isTwice: fc.boolean() }), weight: 4 },
    { arbitrary: fc.record({ do: fc.constant('hear' as const), back: fc.nat(3) }), weight: 3 },
  ),
});

test('3 people, answers lost and repeated: all end with the plan of the keeper, and all were told the truth', () => {
  const counts = { kept: 0, overtaken: 0, unfit: 0, said: 0 };
  fc.assert(
    fc.property(fc.array(action, { minLength: 10, maxLength: 60 }), (actions) => {
      const keeper = new Keeper(PLAN);
      const people = ['a', 'b', 'c'].map((name) => new Person(name, keeper));
      for (const { who, does } of actions) {
        const person = people[who]!;
        if (does.do === 'ask') person.ask(does.what, Math.max(1, person.state.version - does.behind));
        else if (does.do === 'reach') person.reach(does.at, does.isLost);
        else if (does.do === 'answer') person.answer(does.at, does.isTwice);
        else person.hear(Math.max(1, person.state.version - does.back));
      }
      for (const person of people) person.drain();
      for (const person of people) person.drain();
      for (const person of people) {
        expect(person.state.pending).toEqual([]);
        expect(person.state.shown).toEqual(keeper.plan);
        expect([...person.told.keys()].sort()).toEqual([...person.made.keys()].sort());
        for (const [id, outcome] of person.told) {
          const steps = keeper.steps.filter((s) => s.request === id);
          expect(outcome).not.toBe('reopened');
          expect([id, outcome, steps.length]).toEqual([id, outcome, outcome === 'kept' ? 1 : 0]);
          counts[typeof outcome === 'string' ? 'kept' : outcome.kind]++;
          // Nothing that somebody else did is overruled by who had not seen it.
          const { asked: wanted, seen } = person.made.get(id)!;
          if (outcome !== 'kept' || wanted.kind !== 'change') continue;
          const unseen = keeper.steps.filter(
            (s) => s.version > seen && s.version < steps[0]!.version && s.person !== person.name,
          );
          for (const s of unseen) expect([id, collide(s.command, wanted.command)]).toEqual([id, false]);
        }
      }
    }),
    { numRuns: process.env.CLEMBO_FUZZ ? 20_000 : 1500, seed: 5 },
  );
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(40);
});
