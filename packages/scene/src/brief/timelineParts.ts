import { selectFields } from '@clembo/core';
import { MONTHS } from '../text/dates';
import { sizeWords } from './pages';
import { COLOUR_STATES } from './states';
import {
  compareOrNonePart,
  conditionPart,
  namedDateWords,
  NO_DATES,
  PICTURE_WORDS,
  quotable,
  quoted,
  yesPart,
  dayPart,
  fieldChoices,
  fieldName,
  onePart,
  pageParts,
  type Part,
  type Segment,
  sentence,
  fieldOrNonePart,
} from './parts';
import {
  LABEL_PARTS,
  type LabelPart,
  MOST_COLUMNS,
  MOST_LANE_LEVELS,
  type Only,
  SCALE_UNITS,
  type TimelineBrief,
} from './timeline';
import { listWords, type PlanWords } from './words';

const SCALE_WORDS: Record<(typeof SCALE_UNITS)[number], string> = {
  year: 'years',
  fiscalYear: 'fiscal years',
  quarter: 'quarters',
  fiscalQuarter: 'fiscal quarters',
  month: 'months',
  week: 'weeks by number',
  weekDate: 'weeks by date',
  day: 'days',
};

export const INCLUDE_WORDS = {
  both: 'activities and milestones',
  activities: 'activities only',
  milestones: 'milestones only',
} as const;
export const LABEL_WORDS: Record<LabelPart, string> = {
  name: 'name',
  start: 'start',
  finish: 'finish',
  reference: 'reference',
  duration: 'working days',
  daysDone: 'days done and to go',
  percent: 'percent done',
  off: 'days late or ahead',
};

const ONLY_WORDS: Record<Exclude<Only, 'next'>, string> = {
  all: 'all of them',
  critical: 'only what is critical',
  late: 'only what is late',
  ahead: 'only what is ahead',
  beyond: 'only what is beyond tolerance',
  open: 'only what is not done',
  changed: 'only what moved or is new',
};
const TELLS_WORDS: Record<TimelineBrief['tells'], string> = {
  shown: 'about the rows shown',
  end: 'about the end',
  chain: 'about the deciding chain',
  next: 'about the coming weeks',
  behind: 'about lateness',
  changed: 'about changes',
  who: 'about shares of the work',
  parts: 'about the parts',
  progress: 'about progress',
  milestones: 'about the milestones',
};
const nextWords = (weeks: number): string => `only the next ${weeks === 1 ? 'week' : `${weeks} weeks`}`;
/** What needs an edition to compare with. */
export const NEEDS_PROMISE: readonly Only[] = ['late', 'ahead', 'beyond', 'changed'];

const thresholdWords = (n: number): string =>
  n === 0 ? 'however much it is off' : `where it is off by ${n} working ${n === 1 ? 'day' : 'days'} or more`;

const fielded = (plan: PlanWords) => ({ codeFields: plan.codeFields, effortDay: plan.effortDay ?? null });
const columnName = (plan: PlanWords, id: string): string =>
  selectFields(fielded(plan)).find((f) => f.id === id)?.name ?? id;

/** Fields that labels say by parts of their own. */
const LABELLED = new Set(['ref', 'name', 'start', 'finish', 'days', 'daysDone', 'daysToGo', 'percent', 'late', 'off']);
export const isLabelPart = (id: string): id is LabelPart => (LABEL_PARTS as readonly string[]).includes(id);
const labelName = (plan: PlanWords, id: string): string => (isLabelPart(id) ? LABEL_WORDS[id] : columnName(plan, id));

/** Values of the outermost field of the lanes. */
const laneChoices = (b: TimelineBrief, plan: PlanWords): [value: string, words: string][] =>
  (plan.codeFields.find((f) => f.id === b.lanes[0])?.values ?? []).map((v) => [v.code, v.title]);

const fiscalWords = (month: string): string => `the fiscal year beginning in ${month}`;

const rowWords = (field: string | null): string => (field === null ? 'rows shared freely' : `a row for each ${field}`);

const periodsWords = (n: number): string => `marking ${n} ${n === 1 ? 'period' : 'periods'}`;

export const TIMELINE_PARTS: Part<TimelineBrief>[] = [
  onePart('include', 'What is shown', 'Show ', INCLUDE_WORDS),
  {
    as: 'one',
    name: 'level',
    quiet: (b) => b.level === null,
    label: 'Deepest level',
    lead: ' down to ',
    value: (b) => String(b.level ?? 'all'),
    words: (b) => (b.level === null ? 'the last level' : `level ${b.level}`),
    options: ({ levels = 1 }) => [
      ['all', 'the last level'],
      ...Array.from({ length: levels }, (_, k): [string, string] => [String(k + 1), `level ${k + 1}`]),
    ],
    set: (v) => ({ level: v === 'all' ? null : Number(v) }),
  },
  {
    ...fieldOrNonePart<'together', TimelineBrief>(
      'together',
      'Added up',
      (name) => `one bar for each ${name}`,
      'one bar for each activity',
    ),
    shown: (b, plan) => plan.codeFields.length > 0 || b.together !== null,
  },
  conditionPart(' where '),
  {
    as: 'one',
    name: 'tells',
    label: 'Message',
    lead: ', with a message ',
    quiet: (b) => b.tells === 'shown',
    value: (b) => b.tells,
    words: (b) => TELLS_WORDS[b.tells],
    options: () => Object.entries(TELLS_WORDS),
    set: (v) => ({ tells: v as TimelineBrief['tells'] }),
  },
  {
    as: 'one',
    name: 'only',
    label: 'How it stands',
    lead: ', ',
    quiet: (b) => b.only === 'all',
    value: (b) => (b.only === 'next' ? `next ${b.weeks}` : b.only),
    words: (b) => (b.only === 'next' ? nextWords(b.weeks) : ONLY_WORDS[b.only]),
    options: (plan) => [
      ...(Object.keys(ONLY_WORDS) as (keyof typeof ONLY_WORDS)[])
        .filter((o) => !NEEDS_PROMISE.includes(o) || (plan.editions?.length ?? 0) > 0)
        .map((o): [string, string] => [o, ONLY_WORDS[o]]),
      ...[1, 2, 3, 4, 6, 8, 12, 26].map((w): [string, string] => [`next ${w}`, nextWords(w)]),
    ],
    set: (v) => {
      const weeks = /^next (\d+)$/.exec(v)?.[1];
      return weeks === undefined ? { only: v as Only } : { only: 'next', weeks: Number(weeks) };
    },
  },
  {
    // Chosen one after the other, outermost first.
    as: 'many',
    name: 'lanes',
    label: 'Lanes',
    lead: ', ',
    also: ['lanes by', 'lanes for', 'in lanes of', 'grouped by', 'group by'],
    most: MOST_LANE_LEVELS,
    values: (b) => b.lanes,
    words: (b, plan) =>
      b.lanes.length === 0 ? 'without lanes' : `in lanes by ${b.lanes.map((l) => fieldName(plan, l)).join(', then ')}`,
    options: (plan) => [
      ...((plan.levels ?? 1) > 1 ? [['outline', 'outline'] as [string, string]] : []),
      ...fieldChoices(plan),
    ],
    set: (lanes) => ({ lanes }),
  },
  {
    ...onePart<TimelineBrief, 'laneOrder'>('laneOrder', 'Order of lanes', ' in the order of ', {
      book: 'the code book',
      time: 'their dates',
      name: 'their names',
    }),
    quiet: (b) => b.laneOrder === 'book',
    shown: (b) => b.lanes.length > 0,
  },
  {
    as: 'many',
    name: 'laneFirst',
    label: 'Lanes that come first',
    lead: ', ',
    quiet: (b) => b.laneFirst.length === 0,
    shown: (b, plan) => laneChoices(b, plan).length > 0,
    values: (b) => b.laneFirst,
    words: (b, plan) =>
      b.laneFirst.length === 0
        ? 'beginning with no lane in particular'
        : `beginning with ${listWords(b.laneFirst.map((c) => laneChoices(b, plan).find(([v]) => v === c)?.[1] ?? c))}`,
    options: (plan, b) => laneChoices(b, plan),
    set: (laneFirst) => ({ laneFirst }),
  },
  {
    ...yesPart<TimelineBrief>(
      'emptyLanes',
      'Empty lanes',
      { yes: 'with empty lanes', no: 'without empty lanes' },
      false,
    ),
    shown: (b) => b.lanes.some((l) => l !== 'outline'),
  },
  {
    ...onePart<TimelineBrief, 'laneTitles'>('laneTitles', 'Titles of lanes', ', ', {
      level: 'lane titles level',
      turned: 'lane titles turned',
    }),
    quiet: (b) => b.laneTitles === 'level',
    shown: (b) => b.lanes.length > 0,
  },
  {
    ...yesPart<TimelineBrief>(
      'strays',
      'What has no lane',
      { yes: 'with what has no lane', no: 'without what has no lane' },
      true,
    ),
    shown: (b) => b.lanes.length > 0,
  },
  {
    as: 'one',
    name: 'rows',
    label: 'Rows',
    lead: ', rows ',
    value: (b) => b.rows,
    words: (b) => b.rows,
    options: () => [
      ['packed', 'packed: as few as fit'],
      ['each', 'each: one activity a row'],
      ['strand', 'strand: milestones strung on one line'],
    ],
    set: (rows) => ({ rows: rows as TimelineBrief['rows'] }),
  },
  {
    ...onePart<TimelineBrief, 'summaries'>('summaries', 'Summaries', ', ', {
      lines: 'summaries as lines',
      blocks: 'summaries as blocks',
      none: 'without summaries',
    }),
    quiet: (b) => b.summaries === 'lines',
    shown: (b, plan) => b.rows === 'each' && (plan.levels ?? 1) > 1,
  },
  {
    as: 'one',
    name: 'packBy',
    label: 'What shares a row',
    lead: ', ',
    quiet: (b) => b.packBy === null,
    shown: (b, plan) => b.rows !== 'each' && (plan.codeFields.length > 0 || b.packBy !== null),
    value: (b) => b.packBy ?? '',
    words: (b, plan) => rowWords(b.packBy === null ? null : fieldName(plan, b.packBy)),
    options: (plan) => [
      ['', rowWords(null)],
      ...fieldChoices(plan).map(([id, name]): [string, string] => [id, rowWords(name)]),
    ],
    set: (v) => ({ packBy: v === '' ? null : v }),
  },
  {
    ...onePart<TimelineBrief, 'overlaps'>('overlaps', 'Overlaps', ', ', {
      staggered: 'overlaps staggered',
      allowed: 'overlaps allowed',
    }),
    quiet: (b) => b.overlaps === 'staggered',
    shown: (b) => b.rows === 'packed',
  },
  {
    ...onePart<TimelineBrief, 'points'>('points', 'Milestones', ', ', {
      among: 'milestones among the rows',
      above: 'milestones on a line above',
      phases: 'phases from milestone to milestone',
    }),
    quiet: (b) => b.points === 'among',
    shown: (b) => b.include !== 'activities',
  },
  {
    ...onePart<TimelineBrief, 'stems'>('stems', 'Labels on stems', ', ', {
      turns: 'labels in turn above and below',
      above: 'labels all above',
    }),
    quiet: (b) => b.stems === 'turns',
    shown: (b) => b.rows === 'strand' || b.points !== 'among' || (b.rows === 'packed' && b.overlaps === 'allowed'),
  },
  {
    as: 'many',
    name: 'columns',
    label: 'Columns',
    lead: ', ',
    also: ['columns for', 'columns of', 'columns', 'with columns'],
    quiet: (b) => b.columns.length === 0,
    most: MOST_COLUMNS,
    values: (b) => b.columns,
    words: (b, plan) =>
      b.columns.length === 0
        ? 'without columns'
        : `with columns for ${listWords(b.columns.map((c) => columnName(plan, c)))}`,
    options: (plan) => selectFields(fielded(plan)).map((f): [string, string] => [f.id, f.name]),
    set: (columns) => ({ columns }),
  },
  {
    ...onePart<TimelineBrief, 'columnsAt'>('columnsAt', 'Where columns stand', ' at ', {
      right: 'the right of the plot',
      left: 'the left of the plot',
    }),
    quiet: (b) => b.columnsAt === 'right',
    shown: (b) => b.columns.length > 0,
  },
  {
    ...yesPart<TimelineBrief>('totals', 'Totals by lane', { yes: 'with totals by lane', no: 'without totals' }, false),
    shown: (b) => b.columns.length > 0 && (b.rows === 'each' || b.packBy !== null),
  },
  {
    as: 'one',
    name: 'colour',
    label: 'Colour',
    lead: ', ',
    value: (b) => b.colour ?? '',
    quiet: (b) => b.colour === null,
    words: (b, plan) =>
      b.colour === null ? 'in one colour' : `coloured by ${COLOUR_STATES[b.colour] ?? fieldName(plan, b.colour)}`,
    options: (plan) => [
      ['', 'in one colour'],
      ...fieldChoices(plan).map(([id, name]): [string, string] => [id, `by ${name}`]),
      ...Object.entries(COLOUR_STATES).map(([id, name]): [string, string] => [id, `by ${name}`]),
    ],
    set: (v) => ({ colour: v === '' ? null : v }),
  },
  fieldOrNonePart<'shape', TimelineBrief>(
    'shape',
    'Shape of milestones',
    (name) => `milestones shaped by ${name}`,
    'milestones shaped as their colour says',
  ),
  yesPart<TimelineBrief>(
    'doneGrey',
    'What is done',
    { yes: 'what is done in grey', no: 'what is done in colour' },
    false,
  ),
  compareOrNonePart<TimelineBrief>(),
  {
    ...onePart<TimelineBrief, 'compareBy'>('compareBy', 'How it is compared', ' by ', {
      outline: 'outlines',
      arrow: 'arrows',
      both: 'outlines and arrows',
    }),
    quiet: (b) => b.compareBy === 'outline',
    shown: (b) => b.compare !== null,
  },
  {
    ...yesPart<TimelineBrief>('gone', 'What is gone', { yes: 'with what is gone', no: 'without what is gone' }, false),
    shown: (b) => b.compare !== null,
  },
  {
    as: 'one',
    name: 'threshold',
    label: 'What is compared',
    lead: ' ',
    quiet: (b) => b.threshold === 0,
    shown: (b) => b.compare !== null,
    value: (b) => String(b.threshold),
    words: (b) => thresholdWords(b.threshold),
    options: () => [0, 1, 2, 3, 5, 10, 15, 20].map((n): [string, string] => [String(n), thresholdWords(n)]),
    set: (v) => ({ threshold: Number(v) }),
  },
  {
    as: 'many',
    name: 'labels',
    label: 'Labels',
    lead: ', labelled with ',
    also: ['labelled by', 'labeled with', 'labels with', 'labels of', 'labels', 'label'],
    values: (b) => b.labels,
    words: (b, plan) => (b.labels.length === 0 ? 'nothing' : listWords(b.labels.map((l) => labelName(plan, l)))),
    options: (plan) => [
      ...LABEL_PARTS.map((l): [string, string] => [l, LABEL_WORDS[l]]),
      ...selectFields(fielded(plan))
        .filter((f) => !LABELLED.has(f.id))
        .map((f): [string, string] => [f.id, f.name]),
    ],
    most: 16,
    set: (v) => ({ labels: [...LABEL_PARTS.filter((l) => v.includes(l)), ...v.filter((l) => !isLabelPart(l))] }),
  },
  {
    ...onePart<TimelineBrief, 'side'>('side', 'Where labels stand', ', ', {
      auto: 'labels where they read best',
      right: 'labels right of the bars',
      left: 'labels left of the bars',
      inside: 'labels inside the bars',
      above: 'labels above the bars',
    }),
    quiet: (b) => b.side === 'auto',
  },
  {
    as: 'one',
    name: 'periods',
    quiet: (b) => b.periods,
    label: 'Periods',
    lead: ', ',
    shown: (_, plan) => plan.periods.length > 0,
    value: (b) => (b.periods ? 'yes' : 'no'),
    words: (b, plan) => (b.periods ? periodsWords(plan.periods.length) : 'marking no periods'),
    options: () => [
      ['yes', 'mark the plan’s periods'],
      ['no', 'mark none'],
    ],
    set: (v) => ({ periods: v === 'yes' }),
  },
  {
    as: 'dates',
    name: 'dates',
    label: 'Named dates',
    lead: ', marking ',
    quiet: (b) => b.dates.length === 0,
    dates: (b) => b.dates,
    words: (b) => (b.dates.length === 0 ? NO_DATES : namedDateWords(b.dates)),
    set: (dates) => ({ dates: dates.map((d) => ({ ...d, name: quotable(d.name) })) }),
  },
  {
    ...onePart<TimelineBrief, 'links'>('links', 'Links', ', ', {
      none: 'without links',
      all: 'with all links drawn',
      critical: 'with critical links drawn',
      lanes: 'with links between lanes drawn',
    }),
    quiet: (b) => b.links === 'none',
  },
  yesPart<TimelineBrief>('deadlines', 'Deadlines', { yes: 'with deadlines', no: 'without deadlines' }, false),
  yesPart<TimelineBrief>('daysOff', 'Days off', { yes: 'days off shaded', no: 'days off not shaded' }, false),
  yesPart<TimelineBrief>(
    'elapsed',
    'Time gone by',
    { yes: 'time gone by shaded', no: 'time gone by not shaded' },
    false,
  ),
  {
    as: 'many',
    name: 'scale',
    label: 'Time scale',
    lead: ', ',
    most: 4,
    quiet: (b) => b.scale.length === 0,
    values: (b) => b.scale,
    words: (b) =>
      b.scale.length === 0 ? 'a scale as fine as fits' : `a scale of ${listWords(b.scale.map((u) => SCALE_WORDS[u]))}`,
    options: () => SCALE_UNITS.map((u): [string, string] => [u, SCALE_WORDS[u]]),
    set: (v) => ({ scale: SCALE_UNITS.filter((u) => v.includes(u)) }),
  },
  {
    as: 'one',
    name: 'fiscal',
    label: 'Fiscal years begin',
    lead: ', ',
    quiet: (b) => b.fiscal === 1,
    shown: (b) => b.scale.some((u) => u.startsWith('fiscal')),
    value: (b) => String(b.fiscal),
    words: (b) => fiscalWords(MONTHS[b.fiscal - 1]!),
    options: () => MONTHS.map((m, k): [string, string] => [String(k + 1), fiscalWords(m)]),
    set: (v) => ({ fiscal: Number(v) }),
  },
  yesPart<TimelineBrief>(
    'blind',
    'What it hides',
    { yes: 'saying what it hides', no: 'not saying what it hides' },
    false,
  ),
  dayPart('from', ', from '),
  dayPart('to', ' to '),
  {
    ...onePart<TimelineBrief, 'language'>('language', 'Language', ', ', {
      en: 'written in English',
      de: 'written in German',
      fr: 'written in French',
      es: 'written in Spanish',
      it: 'written in Italian',
      nl: 'written in Dutch',
    }),
    quiet: (b) => b.language === 'en',
  },
  {
    as: 'picture',
    name: 'logo',
    label: 'Picture at the head',
    lead: ', ',
    quiet: (b) => b.logo === null,
    picture: (b) => b.logo,
    words: (b) => (b.logo === null ? PICTURE_WORDS.no : PICTURE_WORDS.yes),
    set: (logo) => ({ logo }),
  },
  {
    as: 'text',
    name: 'notes',
    label: 'Notes',
    lead: ', noting ',
    most: 600,
    quiet: (b) => b.notes === '',
    text: (b) => b.notes,
    words: (b) => (b.notes === '' ? 'nothing' : quoted(b.notes)),
    set: (notes) => ({ notes: quotable(notes) }),
  },
  yesPart<TimelineBrief>(
    'numbered',
    'Page number',
    { yes: 'with its page number', no: 'without a page number' },
    false,
  ),
  ...pageParts<TimelineBrief>(),
  {
    ...onePart<TimelineBrief, 'pages'>('pages', 'How many pages', ', ', {
      one: 'on one page',
      several: 'on as many pages as it takes',
    }),
    quiet: (b) => b.pages === 'one',
  },
  {
    as: 'size',
    name: 'size',
    label: 'Own size',
    lead: ', cut to ',
    quiet: (b) => b.size === null,
    size: (b) => b.size,
    words: (b) => sizeWords(b.size),
    set: (size) => ({ size }),
  },
];

/** The brief as a sentence in plain language, in segments. */
export const briefSentence = (brief: TimelineBrief, plan: PlanWords): Segment[] =>
  sentence(TIMELINE_PARTS, brief, plan);
