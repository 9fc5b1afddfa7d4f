import 'server-only';
import { type Access, type PlanStep, readSteps, readTurns } from '@clembo/store';
import { store } from './store';

/** A step as it is told to who asked for it: a command of one's own is not sent back. */
type ToldStep = Omit<PlanStep, 'command'> & { command: PlanStep['command'] | null };

/**
 * What is told of something that was kept: the steps since the version on which it was made, with those of others in
 * between, and what can be taken back and done again now.
 *
 * @param own the request whose command its sender has
 */
export async function keptOf(access: Access, planId: string, since: number, own?: string) {
  const [found, turns] = await Promise.all([
    readSteps(store(), access, planId, since),
    readTurns(store(), access, planId),
  ]);
  const steps: ToldStep[] | null =
    found?.steps?.map((step) => (own !== undefined && step.request === own ? { ...step, command: null } : step)) ??
    null;
  return { steps, turns };
}
