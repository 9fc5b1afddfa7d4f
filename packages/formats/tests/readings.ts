import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { type Activity, dayOf, finishDayOf, isoDate, type Plan } from '@clembo/core';
import { guessColumnMap, mainTable, readPlan, readTables } from '../src/index';

/** What a careful reader would write down of a table, one line an activity; see the files in `tables`. */

const KIND = {
  activity: '',
  startMilestone: 'starts',
  finishMilestone: 'done',
  summary: 'summary',
  levelOfEffort: 'support',
};

function line(a: Activity, plan: Plan): string {
  const at = (moment: number | null, finish: boolean) => {
    if (moment === null) return '';
    const minute = moment % 1440;
    const clock =
      plan.inHours && minute !== 0 ? `T${Math.floor(minute / 60)}:${String(minute % 60).padStart(2, '0')}` : '';
    return isoDate(finish ? finishDayOf(moment) : dayOf(moment)) + clock;
  };
  const said = a.said ? [a.said.start ?? '', a.said.finish ?? ''].join(' > ').trim() : '';
  const tags = [
    a.duration !== null && a.duration > 0 && `${a.duration / 480}d`,
    a.percent !== null && `${a.percent}%`,
    a.actualStart !== null && `began ${at(a.actualStart, false)}`,
    a.actualFinish !== null && `ended ${at(a.actualFinish, true)}`,
    a.cost !== null && `cost ${a.cost / 100}`,
    a.actualCost !== null && `spent ${a.actualCost / 100}`,
    a.effort !== null && `effort ${a.effort / 60} h`,
    a.calendar !== null && a.calendar,
    a.responsible.length > 0 && `by ${a.responsible.join(' + ')}`,
    ...Object.values(a.codes),
    said !== '' && `said ${said}`,
    a.notes !== '' && `notes ${JSON.stringify(a.notes)}`,
  ];
  const dates = a.start === null && a.finish === null ? 'undated' : `${at(a.start, false)} > ${at(a.finish, true)}`;
  return [
    a.ref,
    a.name,
    `${KIND[a.kind]}${a.parent === null ? '' : ` in ${a.parent}`}`.trim(),
    dates,
    ...tags.filter(Boolean),
  ].join(' | ');
}

/** The reading of a file as text, by the map that is guessed for it. */
export async function readingOf(name: string): Promise<string> {
  const bytes = new Uint8Array(readFileSync(join(import.meta.dirname, 'tables', name)));
  const table = mainTable(await readTables(bytes, name));
  const map = guessColumnMap(table);
  const { plan, problems, left, baseline } = readPlan(table, map, { name });
  const lag = (l: Plan['links'][number]) =>
    l.lag === 0
      ? ''
      : `${l.lag > 0 ? '+' : ''}${l.lagCalendar === 'elapsed' ? `${l.lag / 1440}ed` : `${l.lag / 480}d`}`;
  return [
    ...plan.activities.map((a) => line(a, plan)),
    ...(plan.links.length > 0
      ? [`links: ${plan.links.map((l) => `${l.from} > ${l.to} ${l.type}${lag(l)}`).join(', ')}`]
      : []),
    ...baseline.map(
      (b) =>
        `promised ${b.ref}: ${b.start === null ? '' : isoDate(dayOf(b.start))} > ${b.finish === null ? '' : isoDate(finishDayOf(b.finish))}`,
    ),
    ...(plan.currency === null ? [] : [`in ${plan.currency}`]),
    ...(plan.statusDate === null ? [] : [`status date: ${isoDate(dayOf(plan.statusDate))}`]),
    ...(left.length > 0 ? [`left out: ${left.map((l) => `${l.kind} in row ${l.row}`).join(', ')}`] : []),
    ...(map.dateOrder === null ? ['asked: order of the dates'] : []),
    ...problems.map(
      (p) =>
        `not read: row ${p.row}${p.column >= 0 ? ` ${String.fromCharCode(65 + p.column)}` : ''} ${p.code} ${p.value}`,
    ),
  ]
    .map((l) => l.trimEnd())
    .join('\n');
}
