import { basename } from 'node:path';
import {
  acceptSourceChanges,
  type Plan,
  refillCodes,
  SOURCE_CHANGE_KINDS,
  type SourceChange,
  type SourceChangeKind,
  sourceChanges,
  type WholePlan,
} from '@clembo/core';
import {
  ColumnMap,
  looksLikeBundle,
  looksLikeJson,
  readAgain,
  readBundle,
  type Reading,
  readPlanJson,
  unpackTables,
  writeBundle,
  writePlanJson,
} from '@clembo/formats';
import { UsageError } from '../fail';
import { json } from '../findings';
import { loadMappedTable, type LoadOptions, readBytes } from '../load';
import { editionOf, sourceOf } from '../whole';
import { writeOut } from '../writeOut';

interface Held {
  plan: Plan;
  /** All that belongs to it; null for a plan alone. */
  whole: WholePlan | null;
}

/**
 * Compares the next file of a source with a plan, and lists what it says otherwise; what is accepted is written into
 * the plan, of which the state before is kept as an edition.
 */
export async function refreshCommand(
  planFile: string,
  file: string,
  options: LoadOptions & { accept?: string; out?: string },
  asJson: boolean,
): Promise<string> {
  const accept = kindsIn(options.accept);
  const held = readHeld(await readBytes(planFile), planFile);
  const last = lastReading(held);
  const { table, map } = await loadMappedTable(file, options, last?.parts.map((p) => p.map) ?? []);
  const now = { tables: [table], parts: [{ table: 0, map, from: 'said' as const, reasons: [] }] };
  const { base, incoming, joint, placeOf, aliases, alike, doubtful } = readAgain(held.plan, last, now, []);
  if (joint.rowsTaken === 0) throw new UsageError(`No row of ${file} could be taken in. Check its columns with --map.`);
  const changes = sourceChanges(base, incoming, held.plan);
  const accepted = changes.filter((c) => accept.has(c.kind));
  const result = {
    changes: changes.map(listed),
    alike,
    doubtful,
    accepted: accepted.length,
    statusDate: { from: held.plan.statusDate, to: incoming.statusDate },
  };
  let written = '';
  if (options.accept !== undefined) {
    const out = options.out ?? planFile;
    const made = acceptSourceChanges(held.plan, incoming, accepted);
    const dated = incoming.statusDate === null ? made : { ...made, statusDate: incoming.statusDate };
    const after = refillCodes(held.plan, { ...dated, asPromised: held.plan.asPromised || incoming.asPromised });
    if (held.whole) {
      const places = new Map([...placeOf].map(([ref, [, row]]) => [ref, row]));
      const next = refreshed(held.whole, after, basename(file), Date.now(), places, (said) =>
        sourceOf(table, map, joint.problems, { ...said, aliases: Object.fromEntries(aliases) }),
      );
      await writeOut(out, writeBundle(next));
    } else await writeOut(out, writePlanJson(after));
    written = `${accepted.length} accepted, ${changes.length - accepted.length} refused, written to ${out}\n`;
  }
  if (asJson) return json(result);
  const lines = [
    ...changes.map(
      (c) =>
        `${c.kind.padEnd(11)} ${c.ref}  ${c.name}${daysWords(c)}${accept.has(c.kind) || options.accept === undefined ? '' : '  (refused)'}`,
    ),
    ...alike.map((p) => `the same?   ${p.was} ${p.wasName}  and  ${p.is} ${p.name}`),
    ...doubtful.map((name) => `doubtful    “${name}” stands several times; its rows are not told apart`),
  ];
  return lines.length === 0 ? `no changes\n${written}` : `${lines.join('\n')}\n${written}`;
}

/** The kinds of changes that are accepted: all, none, or a list of them. */
function kindsIn(said: string | undefined): ReadonlySet<SourceChangeKind> {
  if (said === undefined || said === 'none') return new Set();
  if (said === 'all') return new Set(SOURCE_CHANGE_KINDS);
  const kinds = said.split(',').map((k) => k.trim());
  const strange = kinds.find((k) => !(SOURCE_CHANGE_KINDS as readonly string[]).includes(k));
  if (strange !== undefined)
    throw new UsageError(`--accept takes all, none, or some of ${SOURCE_CHANGE_KINDS.join(', ')}; not “${strange}”.`);
  return new Set(kinds as SourceChangeKind[]);
}

function readHeld(bytes: Uint8Array, file: string): Held {
  if (looksLikeBundle(bytes)) {
    const whole = readBundle(bytes, basename(file));
    return { plan: whole.editions.find((e) => e.working)!.plan, whole };
  }
  if (!looksLikeJson(bytes))
    throw new UsageError(
      `${file} is not a plan of Clembo's own. Make one first: \`clembo intake ${file} --out PLAN.clembo\`.`,
    );
  const { plan, problems } = readPlanJson(new TextDecoder().decode(bytes), basename(file));
  // It is written back: what could not be read would be lost.
  if (problems.length > 0)
    throw new UsageError(
      `${problems[0]!.source}: “${problems[0]!.value}” cannot be used (${problems[0]!.detail}). Mend it first.`,
    );
  return { plan, whole: null };
}

/** The reading that the plan was made of or refreshed by last. */
function lastReading({ whole }: Held): Reading | null {
  const all = whole?.sources ?? [];
  const reading = Math.max(0, ...all.map((s) => s.reading));
  const read = all.flatMap((s) => {
    const map = ColumnMap.safeParse(s.map);
    const table = s.reading === reading && s.content ? unpackTables(s.content)[0] : undefined;
    return map.success && table ? [{ table, map: map.data, aliases: s.aliases }] : [];
  });
  if (read.length === 0) return null;
  return {
    tables: read.map((r) => r.table),
    parts: read.map(({ map }, table) => ({ table, map, from: 'said' as const, reasons: [] })),
    aliases: new Map(read.flatMap((r) => Object.entries(r.aliases))),
  };
}

/** The plan with what was accepted as its working edition, and the one before kept. */
function refreshed(
  whole: WholePlan,
  after: Plan,
  name: string,
  now: number,
  rows: ReadonlyMap<string, number>,
  source: (said: { no: number; reading: number; createdAt: number }) => WholePlan['sources'][number],
): WholePlan {
  const no = Math.max(0, ...whole.sources.map((s) => s.no)) + 1;
  const reading = Math.max(0, ...whole.sources.map((s) => s.reading)) + 1;
  const before = whole.editions.find((e) => e.working)!;
  const there = new Set(after.activities.map((a) => a.ref));
  const places = { ...before.rows, ...Object.fromEntries([...rows].map(([ref, row]) => [ref, [no, row] as const])) };
  const working = editionOf('refreshed', name, after, now, {
    working: true,
    rows: Object.fromEntries(Object.entries(places).filter(([ref]) => there.has(ref))),
  });
  return {
    ...whole,
    editions: [working, ...whole.editions.map((e) => (e === before ? { ...e, working: false } : e))],
    sources: [...whole.sources, source({ no, reading, createdAt: now })],
  };
}

/** A change as it is listed: without the activity as a whole, and where it would stand. */
const listed = ({ activity: _, moved: __, after: ___, ...change }: SourceChange) => change;

const signed = (days: number): string => `${days > 0 ? '+' : ''}${days}`;

function daysWords({ startDays, finishDays }: SourceChange): string {
  const words = [
    startDays ? `start ${signed(startDays)}` : '',
    finishDays ? `finish ${signed(finishDays)} working days` : '',
  ].filter(Boolean);
  return words.length === 0 ? '' : `, ${words.join(', ')}`;
}
