import { type DaysDone, daysDoneReader, type Plan } from '@clembo/core';
import type { TimelineBrief } from '../../brief/timeline';
import { isLabelPart } from '../../brief/timelineParts';
import { HAREBELL, HAREBELL_ON_TINT, INK, INK_ON_TINT, MADDER, MADDER_ON_TINT, SOFT_INK } from '../../graph/ink';
import type { TextRun } from '../../graph/scene';
import { dateWords, daysDoneWords, offWords, percentWords } from './itemWords';
import { LANGUAGES } from '../../text/languages/index';
import { numberWords, type PageLanguage } from '../../text/languages/language';
import type { Face } from '../../text/faces';
import type { Measure } from '../../text/measure';
import type { ComposeInput } from '../composed';
import type { FieldTexts } from './fieldTexts';
import type { Item, Selection } from './select';

/** What a label says: the name in ink, dates and amounts in soft ink, and how far off the promise it is. */
export interface Label {
  name: string;
  face: Face;
  /** Dates and amounts where the label stands at the finish of a bar, and where it stands anywhere else. */
  atFinish: string;
  elsewhere: string;
  off: string;
  late: boolean;
  widths: LabelWidths;
}

/** Widths at a type size of one point. */
export interface LabelWidths {
  name: number;
  atFinish: number;
  elsewhere: number;
}

/** More than a year holds some day twice: dates then say their year. */
export const needsYear = ({ from, to, firstDay, lastDay }: Spanned): boolean =>
  Math.max(to - from, ((lastDay ?? 0) - (firstDay ?? 0)) * 1440) > 365 * 1440;

/** The dates of a page, and the first and the last day of what is on it, which may lie beyond these. */
interface Spanned {
  from: number;
  to: number;
  firstDay?: number | null;
  lastDay?: number | null;
}

/** Whether a thing stands for the work of a value: it has no reference that its reader knows. */
const isSum = ({ activities }: Plan, { index, ref }: Item): boolean => index >= 0 && activities[index]!.ref !== ref;

/** Writes the labels of all items of a page. */
export function writeLabels(
  selection: Selection,
  input: ComposeInput<TimelineBrief>,
  fields: (id: string) => FieldTexts | null,
): Label[] {
  const { plan, schedule, brief, measure } = input;
  const others = brief.labels.filter((p) => !isLabelPart(p)).flatMap((id) => fields(id) ?? []);
  const l = LANGUAGES[brief.language];
  const days = daysDoneReader(plan, schedule);
  const style = needsYear(selection) ? 'medium' : 'short';
  const parts = new Set(brief.labels);
  const spaces = { label: measure.width('label', 1, ' '), labelStrong: measure.width('labelStrong', 1, ' ') };
  return selection.items.map((item): Label => {
    const face = item.form === 'summary' || item.own?.strong ? 'labelStrong' : 'label';
    if (item.own?.text === '') return BLANK;
    const named =
      item.own?.text ??
      [parts.has('reference') && !isSum(plan, item) ? item.ref : '', parts.has('name') ? nameOf(item) : '']
        .filter(Boolean)
        .join(' ');
    const name = measure.clean(item.form === 'summary' ? named.toUpperCase() : named);
    const more = item.gone ? [] : [...amountsOf(item, plan, parts, days, l), ...others.map((f) => fieldWords(f, item))];
    const soft = (atFinish: boolean) =>
      measure.clean([datesOf(item, parts, style, atFinish, l), ...more].filter(Boolean).join(' · '));
    const off = item.gone ? l.goneNow : parts.has('off') ? (item.fresh ? l.fresh : offWords(item.off, l)) : '';
    const label = { face, off, late: (item.off ?? 0) > 0 || item.gone } as const;
    const atFinish = soft(true);
    const whole = { ...label, name, atFinish, elsewhere: isAlike(item, parts) ? atFinish : soft(false) };
    return { ...whole, widths: widthsOf(whole, measure, spaces) };
  });
}

/** No label at all. */
export const BLANK: Label = {
  name: '',
  face: 'label',
  atFinish: '',
  elsewhere: '',
  off: '',
  late: false,
  widths: { name: 0, atFinish: 0, elsewhere: 0 },
};

/** A number says what it is of. */
function fieldWords(f: FieldTexts, item: Item): string {
  const { text } = f.of(item);
  return text === '' || f.align === 'left' ? text : `${f.title} ${text}`;
}

/** Whether dates are written the same wherever the label stands. */
const isAlike = (item: Item, parts: Set<string>): boolean =>
  item.form === 'milestone' || parts.has('start') || !parts.has('finish');

/** A group says how many activities it stands for. */
const nameOf = (item: Item): string => (item.form === 'group' ? `${item.name} (${item.members.length})` : item.name);

/** A finish that does not stand at the finish says that it is one, and so does a start. */
function datesOf(
  item: Item,
  parts: Set<string>,
  style: 'short' | 'medium',
  atFinish: boolean,
  l: PageLanguage,
): string {
  const { start, finish } = dateWords(item, style, l);
  const [withStart, withFinish] = [parts.has('start'), parts.has('finish')];
  if (item.form === 'milestone') return withStart || withFinish ? finish : '';
  if (withStart && withFinish) return start === finish ? start : `${start}–${finish}`;
  // Words that say when it is as a whole need no “to”.
  const isWhole = item.said !== null && start === finish;
  if (withFinish) return atFinish || isWhole ? finish : l.until(finish);
  return withStart ? l.since(start) : '';
}

function amountsOf(
  item: Item,
  plan: Plan,
  parts: Set<string>,
  days: (position: number) => DaysDone | null,
  l: PageLanguage,
): string[] {
  const a = plan.activities[item.index]!;
  const list: string[] = [];
  const perDay = plan.calendars.find((c) => c.id === (a.calendar ?? plan.calendar))?.minutesPerDay ?? 480;
  const work = item.form === 'milestone' || item.form === 'group' || item.form === 'summary' ? null : a.duration;
  if (parts.has('duration') && work !== null) list.push(l.workingDays(numberWords(l, work / perDay), work === perDay));
  const split = parts.has('daysDone') && work !== null ? days(item.index) : null;
  if (split) list.push(daysDoneWords(split, l));
  if (parts.has('percent') && item.form !== 'milestone' && item.measured) list.push(l.percentDone(percentWords(item)));
  return list;
}

/** Colours of a label on paper, and on a bar, whose tint takes away from their contrast. */
const TONES = {
  paper: { soft: SOFT_INK, late: MADDER, ahead: HAREBELL },
  bar: { soft: INK_ON_TINT, late: MADDER_ON_TINT, ahead: HAREBELL_ON_TINT },
} as const;

/** The runs of a label. A text without a name is set in ink. */
export function labelRuns(label: Label, name: string, soft: string, withOff: boolean, onBar = false): TextRun[] {
  const tones = onBar ? TONES.bar : TONES.paper;
  const runs: TextRun[] = [];
  const add = (text: string, face: Face, fill: string) => {
    if (text !== '') runs.push({ text: runs.length === 0 ? text : ` ${text}`, face, fill });
  };
  add(name, label.face, INK);
  add(soft, 'label', runs.length === 0 ? INK : tones.soft);
  if (withOff) add(label.off, 'labelStrong', label.late ? tones.late : tones.ahead);
  return runs;
}

/** Width of runs at a size. */
export const runsWidth = (measure: Measure, size: number, runs: readonly TextRun[]): number =>
  runs.reduce((sum, r) => sum + measure.width(r.face, size, r.text), 0);

/** Widths of a label at a size of one point: those of its {@link labelRuns}, added up without making them. */
function widthsOf(
  label: Omit<Label, 'widths'>,
  measure: Measure,
  spaces: { label: number; labelStrong: number },
): LabelWidths {
  const name = label.name === '' ? 0 : measure.width(label.face, 1, label.name);
  const joined = (before: number, text: string, face: 'label' | 'labelStrong') =>
    text === '' ? before : before + (before > 0 ? spaces[face] : 0) + measure.width(face, 1, text);
  const whole = (soft: string) => joined(joined(name, soft, 'label'), label.off, 'labelStrong');
  return { name: whole(''), atFinish: whole(label.atFinish), elsewhere: whole(label.elsewhere) };
}
