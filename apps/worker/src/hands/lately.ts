import { isDeepStrictEqual } from 'node:util';
import { type IntakePart, type JointIntake, readParts, type Table, unpackTables } from '@clembo/formats';

// A plan is usually made of the very tables, and by the very choices, that were shown just before: a hand keeps for a
// while what it read last. Whatever is not the same is read again.

/** So long it is kept, in milliseconds. */
const KEPT = 120_000;

interface Lately {
  packed: Uint8Array;
  tables: readonly Table[];
  /** The parts that were read of them, and what came of it. */
  parts: readonly IntakePart[];
  intake: JointIntake | null;
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

/** Remembers tables that were just packed. */
export const rememberTables = (packed: Uint8Array, tables: readonly Table[]): void =>
  keep({ packed, tables, parts: [], intake: null });

/** Tables as they were packed. */
export function tablesOf(packed: Uint8Array): readonly Table[] {
  if (lately && Buffer.compare(lately.packed, packed) === 0) return lately.tables;
  const tables = unpackTables(packed);
  rememberTables(packed, tables);
  return tables;
}

/** What parts of packed tables hold, under a name. */
export function intakeOf(packed: Uint8Array, parts: readonly IntakePart[], name: string): JointIntake {
  const tables = tablesOf(packed);
  if (lately?.intake && isDeepStrictEqual(lately.parts, parts))
    return { ...lately.intake, plan: { ...lately.intake.plan, name } };
  const intake = readParts(tables, parts, { name });
  keep({ packed, tables, parts, intake });
  return intake;
}

/** What was read has become a plan, and is not needed any more. */
export const forget = (): void => keep(null);
