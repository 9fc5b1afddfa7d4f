import {
  addDone,
  codeOfFieldId,
  doneReader,
  daysTogether,
  endsOf,
  extentOf,
  fieldReader,
  fieldType,
  type FieldValue,
  firstDayOf,
  isLoose,
  lastDayOf,
  nothingDone,
  percentOf,
  selectFields,
  wholePercent,
} from '@clembo/core';
import { HAREBELL, INK, MADDER, SOFT_INK } from '../../graph/ink';
import { fieldHead } from '../../text/languages/fields';
import { LANGUAGES } from '../../text/languages/index';
import { dayWords, numberWords, valueWords } from '../../text/languages/language';
import type { ComposeInput } from '../composed';
import type { TimelineBrief } from '../../brief/timeline';
import { dateWords, offWords, percentWords } from './itemWords';
import type { Item } from './select';

/** A text of a column, and its colour. */
export interface FieldText {
  text: string;
  fill: string;
}

/** A field as a page tells it: of one thing, and of several together. */
export interface FieldTexts {
  id: string;
  title: string;
  /** Numbers and dates end under each other, texts begin under each other. */
  align: 'left' | 'right';
  of(item: Item): FieldText;
  /** Of several: the first start, the last finish, sums, and texts that all of them share. */
  together(items: readonly Item[]): FieldText;
}

const SUMS = new Set(['effort', 'cost', 'quantity', 'actualEffort', 'actualCost']);
const IN_DAYS = new Set(['days', 'float', 'free', 'remaining', 'daysDone', 'daysToGo', 'off']);
const PERCENTS = new Set(['percent', 'percentTime', 'percentEffort']);

const plain = (text: string): FieldText => ({ text, fill: INK });
const NOTHING = plain('');

/** How the fields of a plan read on a page, each formatted to its kind. Null for a field that the plan does not have. */
export function fieldTexts(input: ComposeInput<TimelineBrief>, withYear: boolean): (id: string) => FieldTexts | null {
  const { plan, schedule, brief, promised, amounts } = input;
  const l = LANGUAGES[brief.language];
  const done = doneReader(plan, schedule, plan.percentShown);
  const style = withYear ? 'medium' : 'short';
  const names = new Map(selectFields(plan).map((f) => [f.id, f.name]));
  const late = (days: number | null): FieldText => ({
    text: days === null ? '' : offWords(days, l) || '–',
    fill: brief.print === 'grey' || days === null || Math.abs(days) < 0.5 ? INK : days > 0 ? MADDER : HAREBELL,
  });
  const progressOf = (members: readonly number[]): string => {
    const sum = nothingDone();
    for (const i of members) addDone(sum, done(i));
    const percent = percentOf(sum);
    return Number.isNaN(percent) ? '' : `${wholePercent(percent)} %`;
  };

  return (id) => {
    const read = fieldReader(plan, schedule, id, promised);
    if (!read) return null;
    const field = codeOfFieldId(id);
    const titles = new Map(plan.codeFields.find((f) => f.id === field)?.values.map((v) => [v.code, v.title]));
    const type = fieldType(id);

    const words = (value: FieldValue): string => {
      if (value === null) return '';
      if (Array.isArray(value)) return value.join(', ');
      if (typeof value === 'string') return titles.get(value) ?? (field === null ? valueWords(l, value) : value);
      if (type === 'day') return dayWords(l, value, style);
      if (id === 'cost' || id === 'actualCost') return amounts.money(value * 100);
      if (id === 'effort' || id === 'actualEffort') return amounts.effort(value * (plan.effortDay ?? 60));
      if (PERCENTS.has(id)) return `${wholePercent(value)} %`;
      if (id === 'effortOff' || id === 'costOff') return `${value > 0 ? '+' : ''}${Math.round(value)} %`;
      if (IN_DAYS.has(id)) return `${numberWords(l, value)} d`;
      return numberWords(l, value);
    };
    const shared = (members: readonly number[]): string => {
      const texts = new Set(members.map((i) => words(read(i))));
      return texts.size === 1 ? [...texts][0]! : '';
    };
    const together = (all: readonly Item[]): FieldText => {
      const items = all.filter((i) => !i.gone);
      if (items.length === 0) return NOTHING;
      const members = items.flatMap((i) => i.members);
      const then = items.filter((i) => i.promised);
      switch (id) {
        case 'start':
          return plain(dayWords(l, Math.min(...items.map(firstDayOf)), style));
        case 'finish':
          return plain(dayWords(l, Math.max(...items.map(lastDayOf)), style));
        case 'promisedStart':
        case 'promisedFinish': {
          const days = members.map(read).filter((v): v is number => typeof v === 'number');
          if (days.length === 0) return NOTHING;
          return plain(dayWords(l, id === 'promisedStart' ? Math.min(...days) : Math.max(...days), style));
        }
        case 'late':
          return then.length === 0 ? NOTHING : late(endsOf(plan, schedule, promised, members).late);
        case 'days':
          return plain(words(daysTogether(plan, schedule, extentOf(schedule, members)!)));
        case 'float': {
          const floats = members.map(read).filter((v): v is number => typeof v === 'number');
          return floats.length === 0 ? NOTHING : plain(words(Math.min(...floats)));
        }
        case 'percent':
          return plain(progressOf(members));
      }
      if (SUMS.has(id)) {
        const values = members.map(read).filter((v): v is number => typeof v === 'number');
        return values.length === 0 ? NOTHING : plain(words(values.reduce((a, b) => a + b, 0)));
      }
      return type === 'number' ? NOTHING : plain(shared(members));
    };
    return {
      id,
      title: fieldHead(brief.language, id, names.get(id) ?? id),
      align: type === 'text' ? 'left' : 'right',
      of: (item) => {
        if (item.gone) return id === 'name' ? plain(item.name) : id === 'ref' ? plain(item.ref) : NOTHING;
        if (item.form === 'summary') return item.members.length === 0 ? NOTHING : together([item]);
        if (item.form === 'group' && id === 'critical' && item.critical && item.criticalWork)
          return plain(l.noted.criticalOf(item.criticalWork.count, item.members.length));
        if (item.form === 'group') return id === 'name' ? plain(item.name) : together([item]);
        if (id === 'start') return plain(dateWords(item, style, l).start);
        if (id === 'finish') return plain(dateWords(item, style, l).finish);
        if (id === 'late') return late(item.off);
        if (id === 'percent') return plain(item.measured && item.form !== 'milestone' ? `${percentWords(item)} %` : '');
        const text = words(read(item.index));
        return id === 'float' && isLoose(schedule, item.index) ? { text, fill: SOFT_INK } : plain(text);
      },
      together,
    };
  };
}
