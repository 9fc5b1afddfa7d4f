import { extname } from 'node:path';
import {
  buildTimes,
  conflicts,
  countStages,
  coverage,
  dayOf,
  isoDate,
  parseIsoDate,
  schedulePlan,
  shareBuilt,
  stageAt,
  THERE,
  UNDER_WAY,
  GOING,
} from '@clembo/core';
import { writeMatchesCsv } from '@clembo/formats';
import { type FileLook, writeDateGltf } from '@clembo/formats/gltf';
import { UsageError } from '../fail';
import type { Loaded } from '../load';
import { type ModelOptions, withModels } from '../models';
import { writeOut } from '../writeOut';

interface Options extends ModelOptions {
  out?: string | undefined;
  /** The date that is looked at; the status date by default. */
  date?: string | undefined;
}

/** Who builds what: how much of a model and a plan is matched, how it stands on a date, what cannot be. */
export async function matchesCommand(loaded: Loaded, options: Options, asJson: boolean): Promise<string> {
  const { plan, elements, body } = await withModels(loaded, options);
  if (elements.length === 0)
    throw new UsageError('The file holds no model. Say which one with --model MODEL.ifc, .glb or a table of blocks.');
  const schedule = schedulePlan(plan);
  const times = buildTimes(plan, schedule, elements);
  const said = options.date === undefined ? null : parseIsoDate(options.date);
  if (options.date !== undefined && said === null)
    throw new UsageError(`--date takes a date such as 2026-09-14, not “${options.date}”.`);
  const day = said ?? (plan.statusDate === null ? null : dayOf(plan.statusDate));
  const cover = coverage(plan, schedule, elements);
  const stages = day === null ? null : Uint8Array.from(elements, (_, e) => stageAt(times, e, day));
  const found = conflicts(times);
  if (options.out !== undefined) {
    const kind = extname(options.out).toLowerCase();
    if (kind === '.csv') await writeOut(options.out, writeMatchesCsv(plan, schedule, elements));
    else if (kind === '.glb') {
      if (stages === null) throw new UsageError('Say on which date the model is wanted with --date 2026-09-14.');
      const looks = elements.map((_, e): FileLook | null =>
        stages[e] === THERE
          ? { colour: '#DAD5CA', opacity: 1 }
          : stages[e] === UNDER_WAY || stages[e] === GOING
            ? { colour: '#79519E', opacity: Math.max(0.25, shareBuilt(times, e, day!)) }
            : null,
      );
      await writeOut(options.out, await writeDateGltf(elements, body, looks));
    } else throw new UsageError('--out names a file .csv for the matches, or .glb for the model on a date.');
  }
  const result = {
    elements: cover.elements,
    matched: cover.matched,
    activities: cover.activities,
    withElements: cover.activities - cover.idle.length,
    date: day === null ? null : isoDate(day),
    stages: stages && countStages(stages),
    conflicts: found.map((c) => ({
      kind: c.kind,
      element: elements[c.element]!.ref,
      activities: c.activities.map((i) => plan.activities[i]!.ref),
    })),
  };
  if (asJson) return `${JSON.stringify(result, null, 2)}\n`;
  const standing = result.stages
    ? `On ${result.date}: ${Object.entries(result.stages)
        .filter(([, n]) => n > 0)
        .map(([stage, n]) => `${n} ${WORDS[stage]!}`)
        .join(', ')}\n`
    : '';
  const trouble = found.length > 0 ? `${found.length} elements are built twice or removed before they stand\n` : '';
  return `${result.matched} of ${result.elements} elements matched, ${result.withElements} of ${result.activities} activities\n${standing}${trouble}`;
}

const WORDS: Record<string, string> = {
  loose: 'without work',
  undated: 'whose work has no dates',
  notYet: 'to come',
  underWay: 'under way',
  there: 'stand',
  going: 'being removed',
  gone: 'gone',
};
