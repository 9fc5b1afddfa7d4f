import type { CalendarSpec, DayPattern } from '@clembo/core';
import { type Table, trimTable, UnreadableFile } from '../table/table';
import { readDuration } from '../values/amounts';
import { list, refId, text } from './attributes';

/** What is read of an entity of a model: its attributes by name. */
type Line = Record<string, unknown>;
interface Model {
  all(type: number): Line[];
  line(ref: unknown): Line | null;
}

const HEADINGS = [
  'Reference',
  'Name',
  'Start',
  'Finish',
  'Duration',
  'Actual start',
  'Actual finish',
  'Percent complete',
  'Predecessors',
  'Parent ref',
  'Milestone',
  'Calendar',
  'Status',
  'Kind of task',
  'Notes',
  'Model elements',
];

export const looksLikeModel = (text: string): boolean => /^\s*ISO-10303-21\s*;/i.test(text.slice(0, 500));

/**
 * The schedule that a building model carries (ISO 16739-1: IfcTask with IfcTaskTime, IfcRelSequence with lags,
 * IfcRelNests, IfcWorkCalendar), as a table with its calendars. The elements that tasks are assigned to are kept in a
 * column of their own.
 *
 * @throws UnreadableFile
 */
export async function readModelSchedule(bytes: Uint8Array, source: string): Promise<Table> {
  const ifc = await import('web-ifc');
  const api = new ifc.IfcAPI();
  await api.Init();
  api.SetLogLevel(ifc.LogLevel.LOG_LEVEL_OFF);
  const refused = (error: unknown) =>
    new UnreadableFile(
      `${source} could not be read as a building model (${error instanceof Error ? error.message.slice(0, 150) : 'unknown reason'}).`,
    );
  let id = -1;
  try {
    id = api.OpenModel(bytes);
    if (id < 0) throw new Error('its schema is not known');
    const line = (ref: unknown): Line | null => {
      const at = ref !== null && typeof ref === 'object' && 'value' in ref ? (ref as { value: unknown }).value : ref;
      if (typeof at !== 'number') return null;
      try {
        return api.GetLine(id, at) as Line;
      } catch {
        return null;
      }
    };
    const model: Model = {
      line,
      all: (type) => {
        const ids = api.GetLineIDsWithType(id, type);
        const lines = Array.from({ length: ids.size() }, (_, k) => line(ids.get(k)));
        if (lines.includes(null)) throw new Error('a part of its schedule is damaged');
        return lines as Line[];
      },
    };
    return tableOf(model, ifc, source);
  } catch (error) {
    throw error instanceof UnreadableFile ? error : refused(error);
  } finally {
    if (id >= 0) api.CloseModel(id);
  }
}

interface Types {
  IFCTASK: number;
  IFCRELSEQUENCE: number;
  IFCRELNESTS: number;
  IFCRELASSIGNSTOCONTROL: number;
  IFCRELASSIGNSTOPRODUCT: number;
  IFCWORKCALENDAR: number;
}

const idOf = (line: Line | null): number | null => (line && typeof line.expressID === 'number' ? line.expressID : null);

function tableOf(model: Model, types: Types, source: string): Table {
  const tasks = model.all(types.IFCTASK);
  if (tasks.length === 0)
    throw new UnreadableFile(`${source} is a building model without tasks: there is no schedule in it.`);
  const identified = tasks.map((t) => text(t.Identification));
  const own = identified.every((i) => i !== '') && new Set(identified).size === tasks.length;
  const refOf = new Map(tasks.map((t, k) => [idOf(t)!, own ? identified[k]! : text(t.GlobalId)]));
  const before = new Map<number, string[]>();
  for (const rel of model.all(types.IFCRELSEQUENCE)) {
    const [from, to] = [refId(rel.RelatingProcess), refId(rel.RelatedProcess)];
    const ref = from === null ? undefined : refOf.get(from);
    if (ref === undefined || to === null) continue;
    before.set(to, [
      ...(before.get(to) ?? []),
      `${ref} ${linkType(text(rel.SequenceType))}${lagText(model.line(rel.TimeLag))}`,
    ]);
  }
  const parent = new Map<number, string>();
  for (const rel of model.all(types.IFCRELNESTS)) {
    const ref = refOf.get(refId(rel.RelatingObject) ?? -1);
    if (ref !== undefined) for (const child of list(rel.RelatedObjects)) parent.set(refId(child)!, ref);
  }
  const elements = new Map<number, string[]>();
  for (const rel of model.all(types.IFCRELASSIGNSTOPRODUCT)) {
    const guid = text(model.line(rel.RelatingProduct)?.GlobalId);
    for (const task of list(rel.RelatedObjects)) {
      const at = refId(task)!;
      elements.set(at, [...(elements.get(at) ?? []), guid]);
    }
  }
  const calendars: CalendarSpec[] = [];
  const calendarOf = new Map<number, string>();
  for (const rel of model.all(types.IFCRELASSIGNSTOCONTROL)) {
    const control = model.line(rel.RelatingControl);
    if (!control || control.type !== types.IFCWORKCALENDAR) continue;
    const spec = calendarFrom(model, control, calendars.length);
    if (!spec) continue;
    if (!calendars.some((c) => c.name === spec.name)) calendars.push(spec);
    for (const task of list(rel.RelatedObjects)) calendarOf.set(refId(task)!, spec.name);
  }
  const rows = tasks.map((t) => {
    const at = idOf(t)!;
    // Times that are named and cannot be read are listed as not read.
    const time: Line = model.line(t.TaskTime) ?? (refId(t.TaskTime) === null ? {} : { ScheduleStart: 'unreadable' });
    const either = (...names: string[]) => names.map((n) => text(time[n])).find((v) => v !== '') ?? '';
    const completion = text(time.Completion);
    const duration = either('ScheduleDuration');
    return [
      refOf.get(at)!,
      text(t.Name),
      either('ScheduleStart', 'EarlyStart').slice(0, 16),
      either('ScheduleFinish', 'EarlyFinish').slice(0, 16),
      text(time.DurationType) === 'ELAPSEDTIME' ? elapsed(duration) : duration,
      either('ActualStart').slice(0, 16),
      either('ActualFinish').slice(0, 16),
      // A share of one, or a percentage: IfcPositiveRatioMeasure is a share.
      completion === '' ? '' : `${Number((Number(completion) * 100).toPrecision(12))}%`,
      (before.get(at) ?? []).join('; '),
      parent.get(at) ?? '',
      text(t.IsMilestone),
      calendarOf.get(at) ?? '',
      text(t.Status),
      text(t.PredefinedType).toLowerCase(),
      text(t.Description),
      (elements.get(at) ?? []).join(' ').slice(0, 30_000),
    ];
  });
  const table = trimTable({ source, sheet: null, firstRow: 1, rows: [[...HEADINGS], ...inOutline(rows)] });
  return calendars.length > 0 ? { ...table, calendars } : table;
}

/** Rows in the order of the outline: what holds others stands before them. */
function inOutline(rows: string[][]): string[][] {
  const parentAt = HEADINGS.indexOf('Parent ref');
  const children = new Map<string, string[][]>();
  for (const row of rows) children.set(row[parentAt]!, [...(children.get(row[parentAt]!) ?? []), row]);
  const ordered: string[][] = [];
  const seen = new Set<string[]>();
  const put = (row: string[]) => {
    if (seen.has(row)) return;
    seen.add(row);
    ordered.push(row);
    for (const child of children.get(row[0]!) ?? []) put(child);
  };
  for (const row of children.get('') ?? []) put(row);
  for (const row of rows) put(row);
  return ordered;
}

const LINK_WORDS: Record<string, string> = {
  FINISH_START: 'FS',
  START_START: 'SS',
  FINISH_FINISH: 'FF',
  START_FINISH: 'SF',
};
const linkType = (sequence: string): string => LINK_WORDS[sequence] ?? 'FS';

/** An elapsed duration in words that say so. */
function elapsed(duration: string): string {
  const read = readDuration(duration, 'day');
  return read ? `${read.amount} elapsed ${read.unit}s` : duration;
}

/** A lag as it is written behind a link; a share of the predecessor's length stays one, and is listed as not read. */
function lagText(lag: Line | null): string {
  if (!lag) return '';
  const measure = text(lag.LagValue);
  if (measure === '') return '';
  if (!/^-?P/i.test(measure)) return `+${Number(measure) * 100}%`;
  const minus = measure.startsWith('-');
  const plain = minus ? measure.slice(1) : measure;
  const read = readDuration(plain, 'day');
  if (!read) return `+${plain}`;
  if (read.amount === 0) return '';
  return `${minus ? '-' : '+'}${read.amount} ${text(lag.DurationType) === 'ELAPSEDTIME' ? 'elapsed ' : ''}${read.unit}s`;
}

/** A calendar of a model: its weekly working times; null where it states none. */
function calendarFrom(model: Model, control: Line, count: number): CalendarSpec | null {
  const week: DayPattern[] = Array.from({ length: 7 }, () => []);
  for (const ref of list(control.WorkingTimes)) {
    const pattern = model.line(model.line(ref)?.RecurrencePattern);
    if (!pattern) continue;
    const kind = text(pattern.RecurrenceType);
    const days = kind === 'DAILY' ? [1, 2, 3, 4, 5, 6, 7] : list(pattern.WeekdayComponent).map((d) => Number(text(d)));
    if (kind !== 'WEEKLY' && kind !== 'DAILY') continue;
    const periods = list(pattern.TimePeriods)
      .map((p) => model.line(p))
      .map((p) => [minuteOf(text(p?.StartTime)), minuteOf(text(p?.EndTime))] as const)
      .filter((p): p is readonly [number, number] => p[0] !== null && p[1] !== null && p[0] < p[1]);
    const hours: DayPattern =
      periods.length > 0
        ? periods.map(([a, b]) => [a, b])
        : [
            [480, 720],
            [780, 1020],
          ];
    hours.sort((a, b) => a[0] - b[0]);
    if (hours.some((h, k) => k > 0 && hours[k - 1]![1] > h[0])) continue;
    // Monday is the first day of the week (IfcDayInWeekNumber).
    for (const d of days) if (d >= 1 && d <= 7 && week[d - 1]!.length === 0) week[d - 1] = hours;
  }
  const longest = Math.max(...week.map((p) => p.reduce((sum, [a, b]) => sum + b - a, 0)));
  if (longest === 0) return null;
  const name = text(control.Name) || `Calendar of the model ${count + 1}`;
  return {
    id: `model-${count + 1}`,
    name: name.slice(0, 200),
    week,
    exceptions: [],
    yearly: [],
    minutesPerDay: longest,
  };
}

function minuteOf(clock: string): number | null {
  const m = /^(\d{1,2}):(\d{2})/.exec(clock);
  return m ? Number(m[1]) * 60 + Number(m[2]) : null;
}
