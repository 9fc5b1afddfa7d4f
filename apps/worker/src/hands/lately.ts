import { isDeepStrictEqual } from 'node:util';
import { type PackedPlan, packPlan, type Plan, type Schedule, schedulePlan } from '@clembo/core';
import {
  type IntakePart,
  type JointIntake,
  promisedEdition,
  readParts,
  type Table,
  unpackTables,
} from '@clembo/formats';

// A plan is usually made of the very tables, and by the very choices, that were shown just before: a hand keeps for a
// while what it read last, and gets the plan of it ready while a person looks. Whatever is not the same is read again.

/** So long it is kept, in milliseconds. */
const KEPT = 120_000;

/** So many activities are got ready: it takes less than a second, for which somebody else may have to wait. */
const MOST_READY = 60_000;

/** What becomes of an intake, all but its name. */
export interface PreparedPlan {
  promised: Plan | null;
  schedule: Schedule;
  packed: PackedPlan;
}

interface Lately {
  tables: readonly Table[];
  /** The tables as they were packed, once they are. */
  packed: Uint8Array | null;
  /** What was read of them last, by which parts, and what was prepared of that. */
  read: { parts: readonly IntakePart[]; intake: JointIntake; prepared: PreparedPlan | null } | null;
}

let lately: Lately | null = null;
let timer: NodeJS.Timeout | undefined;

function keep(what: Lately | null): void {
  lately = what;
  clearTimeout(timer);
  timer = setTimeout(() => {
    lately = null;
  }, KEPT);
  timer.unref();
}

/** Remembers how tables are packed. */
export const rememberTables = (packed: Uint8Array, tables: readonly Table[]): void =>
  keep({ tables, packed, read: lately?.tables === tables ? lately.read : null });

/** Tables as they were packed. */
export function tablesOf(packed: Uint8Array): readonly Table[] {
  if (lately?.packed && Buffer.compare(lately.packed, packed) === 0) return lately.tables;
  const tables = unpackTables(packed);
  rememberTables(packed, tables);
  return tables;
}

/** What parts of tables hold, under a name. */
export function intakeOf(tables: readonly Table[], parts: readonly IntakePart[], name: string): JointIntake {
  const known = lately?.tables === tables ? lately : null;
  if (known?.read && isDeepStrictEqual(known.read.parts, parts)) {
    const { intake } = known.read;
    return { ...intake, plan: { ...intake.plan, name } };
  }
  const intake = readParts(tables, parts, { name });
  keep({ tables, packed: known?.packed ?? null, read: { parts, intake, prepared: null } });
  return intake;
}

const prepare = ({ plan, baseline }: JointIntake): PreparedPlan => ({
  promised: promisedEdition(plan, baseline),
  schedule: schedulePlan(plan),
  packed: packPlan(plan),
});

/** Gets ready what will probably be asked for next. */
export function prepareNext(): void {
  const read = lately?.read;
  if (!read || read.prepared || read.intake.rowsTaken === 0 || read.intake.rowsTaken > MOST_READY) return;
  try {
    read.prepared = prepare(read.intake);
  } catch {
    // Whoever asks for it is told.
  }
}

/** What becomes of an intake: prepared before, or now. */
export function preparedOf(intake: JointIntake): PreparedPlan {
  const read = lately?.read;
  const prepared =
    read?.prepared && read.intake.plan.activities === intake.plan.activities ? read.prepared : prepare(intake);
  return { ...prepared, packed: { ...prepared.packed, name: intake.plan.name } };
}

/** What was read has become a plan, and is not needed any more. */
export const forget = (): void => keep(null);
