import 'server-only';
import { orderInTable, readPlan, UnreadableFile } from '@clembo/formats';
import { type Access, deleteIntake, keepColumnMap } from '@clembo/store';
import { store } from '../store';
import { keepPlan } from './keepPlan';
import { openIntake } from './openIntake';

/** What a person wants of an intake. */
export interface PlanWish {
  name: string;
  /** Nothing is taken in while any cell cannot be read. */
  strict: boolean;
  /** The moment at which a plan without dates starts. */
  start: number | null;
}

/** Makes the plan of an intake, and ends the intake. */
export async function makePlan(access: Access, id: string, { name, strict, start }: PlanWish): Promise<string> {
  const { stored, table, map } = await openIntake(access, id);
  if (map.dateOrder === null) throw new UnreadableFile('Say first whether day or month comes first in the dates.');
  const intake = readPlan(table, map, { name, start });
  if (intake.rowsTaken === 0)
    throw new UnreadableFile(
      'No row of this table could be taken in. Check which columns hold the names and the dates.',
    );
  if (intake.dates === 'none') throw new UnreadableFile(NOTHING_TO_DRAW);
  if (intake.dates === 'computed' && start === null)
    throw new UnreadableFile('The table has lengths or links, but no dates. Say on which day the plan starts.');
  if (strict && intake.problems.length > 0)
    throw new UnreadableFile(
      `${intake.problems.length} cells cannot be read, and you asked to hold everything back until they can.`,
    );
  const { sheet } = table;
  const source = { name: stored.source, sheet, map, rowOf: intake.rowOf };
  const planId = await keepPlan(access, intake.plan, intake.baseline, source);
  // An order that this file did not need was never chosen: the next file may have to be asked about.
  const dateOrder = orderInTable(table, map) === 'irrelevant' ? null : map.dateOrder;
  await keepColumnMap(store(), access, map.headings, { ...map, dateOrder });
  await deleteIntake(store(), access, id);
  return planId;
}

const NOTHING_TO_DRAW =
  'No column of this table holds dates, durations or links, so there is nothing to draw. Say which column holds the dates.';
