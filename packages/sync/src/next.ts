import { applyCommand, collidesWith, type Command, CommandRefused, type Plan } from '@clembo/core';
import { type Asked, type Effect, type Event, type Pending, type Reason, RECENT, type State, type Step } from './state';

/** What an event leads to. */
export interface Next {
  state: State;
  effects: Effect[];
  /** References of the activities in which what is shown may differ from what was shown before. */
  touched: readonly string[];
}

/** What an event leads to: pure, so that a state and an event always give the same. */
export function next(state: State, event: Event): Next {
  switch (event.kind) {
    case 'asked':
      return asked(state, event.id, event.asked, event.seen);
    case 'steps':
      return advanced(state, event.version, event.steps);
    case 'answered':
      return answered(state, event.id, event.steps);
    case 'refused':
      return refused(state, event.id, { kind: 'said', message: event.message, status: event.status });
    case 'unanswered':
      return sentAgain(state, event.id);
  }
}

const still = (state: State, ...effects: Effect[]): Next => ({ state, effects, touched: [] });

/** A command applied, or the words in which it is refused. */
function tried(plan: Plan, command: Command): { plan: Plan; touched: string[] } | string {
  try {
    return applyCommand(plan, command);
  } catch (error) {
    if (error instanceof CommandRefused) return error.message;
    throw error;
  }
}

function asked(state: State, id: string, what: Asked, seen: number): Next {
  let touched: string[] = [];
  let { shown } = state;
  if (what.kind === 'change') {
    if (isOvertaken(state, what.command, seen))
      return still(state, { do: 'refused', id, reason: { kind: 'overtaken' } });
    const made = tried(shown, what.command);
    if (typeof made === 'string') return still(state, { do: 'refused', id, reason: { kind: 'unfit', message: made } });
    ({ plan: shown, touched } = made);
  }
  const after = { ...state, shown, pending: [...state.pending, { id, asked: what, touched }] };
  return { ...sending(after), touched };
}

function isMet(command: Command, steps: readonly Step[]): boolean {
  if (steps.length === 0) return false;
  const meets = collidesWith(command);
  return steps.some((step) => step.command !== null && meets(step.command));
}

/** Whether somebody else did the same in steps that its maker had not seen; also where those are not remembered. */
function isOvertaken({ recent }: State, command: Command, seen: number): boolean {
  const isForgotten = recent.length === RECENT && seen < recent[0]!.version;
  return (
    isForgotten ||
    isMet(
      command,
      recent.filter((step) => step.version > seen),
    )
  );
}

/** With the first of what is pending on its way, where nothing is. */
function sending(state: State, ...before: Effect[]): Next {
  const [first] = state.pending;
  if (!first || state.underWay) return still(state, ...before);
  const { version } = state;
  return still({ ...state, underWay: { pending: first, version, landed: false } }, ...before, {
    do: 'send',
    id: first.id,
    version,
    asked: first.asked,
    isAgain: false,
  });
}

function sentAgain(state: State, id: string): Next {
  const { underWay } = state;
  if (underWay?.pending.id !== id) return still(state);
  const { pending, version } = underWay;
  return still(state, { do: 'send', id, version, asked: pending.asked, isAgain: true });
}

/** The steps that came and are not in it yet are taken in, beneath what is pending. */
function advanced(state: State, version: number, steps: readonly Step[] | null): Next {
  if (version <= state.version) return still(state);
  if (steps === null) return still(state, { do: 'reopen' });
  const fresh = steps.filter((step) => step.version > state.version);
  const { length } = fresh;
  if (length === 0 || fresh[0]!.version !== state.version + 1 || fresh.at(-1)!.version !== state.version + length)
    return still(state, { do: 'fetch', after: state.version });

  let { confirmed, underWay, pending } = state;
  const others: Step[] = [];
  const touched = new Set<string>();
  for (const step of fresh) {
    const own = underWay !== null && step.request === underWay.pending.id;
    const command = own ? (step.command ?? commandOf(underWay!.pending)) : step.command;
    const made = command === null ? '' : tried(confirmed, command);
    if (typeof made === 'string') return still(state, { do: 'reopen' });
    confirmed = made.plan;
    for (const ref of made.touched) touched.add(ref);
    if (own) {
      pending = pending.filter((p) => p.id !== step.request);
      underWay = { ...underWay!, landed: true };
    } else others.push(step);
  }
  const ahead = { ...state, confirmed, underWay, version: fresh.at(-1)!.version };
  // What one asked for oneself is shown already.
  if (others.length === 0 && underWay?.pending.asked.kind === 'change') return still({ ...ahead, pending });
  const recent = [...state.recent, ...others].slice(-RECENT);
  const { pending: left, effects } = withoutOvertaken(pending, underWay?.pending.id ?? null, others);
  const next = rebased({ ...ahead, recent, pending: left }, state.pending, touched);
  return { ...next, effects: [...effects, ...next.effects] };
}

const commandOf = ({ asked: what }: Pending): Command | null => (what.kind === 'change' ? what.command : null);

/** What waits and is about the same as steps of others is not kept any more. */
function withoutOvertaken(pending: readonly Pending[], sent: string | null, others: readonly Step[]) {
  const effects: Effect[] = [];
  const left = pending.filter((p) => {
    const command = commandOf(p);
    if (p.id === sent || command === null || !isMet(command, others)) return true;
    effects.push({ do: 'refused', id: p.id, reason: { kind: 'overtaken' } });
    return false;
  });
  return { pending: left, effects };
}

/** What is pending shown on top of what is confirmed; what does not fit any more ends, unless it is under way. */
function rebased(state: State, before: readonly Pending[], steps: ReadonlySet<string>): Next {
  const touched = new Set([...steps, ...before.flatMap((p) => p.touched)]);
  const effects: Effect[] = [];
  let shown = state.confirmed;
  const pending: Pending[] = [];
  for (const p of state.pending) {
    const command = commandOf(p);
    const made = command === null ? { plan: shown, touched: [] } : tried(shown, command);
    if (typeof made !== 'string') {
      shown = made.plan;
      for (const ref of made.touched) touched.add(ref);
      pending.push({ ...p, touched: made.touched });
    } else if (p.id === state.underWay?.pending.id) pending.push({ ...p, touched: [] });
    else effects.push({ do: 'refused', id: p.id, reason: { kind: 'unfit', message: made } });
  }
  return { state: { ...state, shown, pending }, effects, touched: [...touched] };
}

function answered(state: State, id: string, steps: readonly Step[] | null): Next {
  if (state.underWay?.pending.id !== id) return still(state);
  const came = steps ? advanced(state, steps.at(-1)?.version ?? state.version, steps) : still(state);
  const { underWay } = came.state;
  // It is kept, but not among the steps that are known: only the whole plan tells what became of it.
  if (!underWay?.landed) {
    const told = came.effects.filter((effect) => effect.do === 'refused');
    return { ...came, effects: [{ do: 'kept', id }, ...told, { do: 'reopen' }] };
  }
  const done = sending({ ...came.state, underWay: null }, ...came.effects, { do: 'kept', id });
  return { ...done, touched: came.touched };
}

function refused(state: State, id: string, reason: Reason): Next {
  if (state.underWay?.pending.id !== id) return still(state);
  const pending = state.pending.filter((p) => p.id !== id);
  const back = rebased({ ...state, pending, underWay: null }, state.pending, new Set());
  const done = sending(back.state, { do: 'refused', id, reason }, ...back.effects, {
    do: 'fetch',
    after: back.state.version,
  });
  return { ...done, touched: back.touched };
}
