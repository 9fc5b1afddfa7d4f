import { type Problem, problemWords } from './problems';

/** Cells of one column that cannot be read for one reason and look alike. */
export interface ProblemGroup {
  code: Problem['code'];
  /** Position of the column, from 0; -1 for whole rows. */
  column: number;
  heading: string;
  /** What is wrong with the first of them. */
  words: string;
  count: number;
  /** The different texts, with the rows in which they stand. */
  texts: { text: string; rows: number[]; count: number }[];
  /** What would mend them all: one thing said of the table or column, or another text for each. */
  mend: 'year' | 'month' | 'scale' | 'unit' | 'decimal' | 'texts' | null;
  /** For each text what may be meant by it, where there is just one such thing. */
  suggestion: string | null;
}

const MOST_GROUPS = 60;
const MOST_TEXTS = 30;
const MOST_ROWS = 12;
/** A longer text is shown by its beginning, and not mended by another. */
const LONGEST_TEXT = 300;

const MENDS: Partial<Record<Problem['code'], ProblemGroup['mend']>> = {
  noYear: 'year',
  openMonth: 'month',
  openPercent: 'scale',
  openUnit: 'unit',
  notADate: 'texts',
  weekdayDiffers: 'texts',
  notADuration: 'texts',
  negativeDuration: 'texts',
  notANumber: 'texts',
  otherCurrency: 'texts',
  notAPercent: 'texts',
  notYesNo: 'texts',
  notALevel: 'texts',
  notAKind: 'texts',
  unknownPredecessor: 'texts',
  unknownCalendar: 'texts',
  unknownParent: 'texts',
  finishBeforeStart: 'texts',
};

/** The shape of a text: figures alike, letters alike. */
const shape = (text: string): string =>
  text
    .slice(0, 60)
    .replace(/\d+/g, '9')
    .replace(/\p{L}+/gu, 'a');

/** Puts problems that look alike together, the largest groups first. */
export function groupProblems(problems: readonly Problem[]): ProblemGroup[] {
  const groups = new Map<string, ProblemGroup & { byText: Map<string, ProblemGroup['texts'][number]> }>();
  for (const p of problems) {
    const mend = p.value.length > LONGEST_TEXT ? null : mendOf(p);
    // One year goes for all columns.
    const key = mend === 'year' ? p.code : `${p.code} ${p.column} ${mend} ${mend === 'texts' ? shape(p.value) : ''}`;
    let group = groups.get(key);
    if (group && group.column !== p.column) [group.column, group.heading] = [-1, ''];
    if (!group) {
      group = {
        code: p.code,
        column: p.column,
        heading: p.heading,
        words: problemWords(p),
        count: 0,
        texts: [],
        mend,
        suggestion: p.code === 'weekdayDiffers' ? (p.detail ?? null) : null,
        byText: new Map(),
      };
      groups.set(key, group);
    }
    group.count++;
    const known = group.byText.get(p.value);
    if (known) {
      known.count++;
      if (known.rows.length < MOST_ROWS) known.rows.push(p.row);
    } else if (group.texts.length < MOST_TEXTS) {
      const text = { text: p.value.slice(0, LONGEST_TEXT), rows: [p.row], count: 1 };
      group.byText.set(p.value, text);
      group.texts.push(text);
    }
  }
  return [...groups.values()]
    .map(({ byText: _, ...group }) => (group.texts.length > 1 ? { ...group, suggestion: null } : group))
    .sort((a, b) => b.count - a.count)
    .slice(0, MOST_GROUPS);
}

/** A number that only its decimal mark leaves open is settled for its whole column. */
const mendOf = (p: Problem): ProblemGroup['mend'] =>
  p.code === 'notANumber' && /^\D*[1-9]\d{0,2}[.,]\d{3}\D*$/.test(p.value) ? 'decimal' : (MENDS[p.code] ?? null);
