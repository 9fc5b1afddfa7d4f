import type { Plan } from '../plan/schema';
import type { Command } from './command';
import { Draft } from './draft/draft';
import { kindOf } from './table';

/** What came of a command. */
export interface Applied {
  plan: Plan;
  /** The command that takes it back. */
  inverse: Command;
  /** References of the activities that it is about. */
  touched: string[];
}

/**
 * Applies a command to a plan, which itself is left as it is.
 *
 * Ensures that applying the inverse to the result gives the plan again, that what the command is not about is the same
 * object, and that a valid plan stays valid (`plan/valid.ts`). Many commands in one take time by their number.
 *
 * @throws CommandRefused when the command is about something that the plan does not have, or has already, or when what
 * it makes does not hold together
 */
export function applyCommand(plan: Plan, command: Command): Applied {
  const draft = new Draft(plan);
  const inverse = applyTo(draft, command);
  return { plan: draft.finished(), inverse, touched: [...draft.touched] };
}

function applyTo(draft: Draft, command: Command): Command {
  if (command.do !== 'all') return kindOf(command).apply(draft, command);
  const inverses = command.commands.map((one) => applyTo(draft, one));
  return { do: 'all', commands: inverses.reverse() };
}
