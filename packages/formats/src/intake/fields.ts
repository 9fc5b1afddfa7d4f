/** How the cells of a field are read. */
export type FieldType =
  | 'text'
  | 'date'
  | 'duration'
  | 'percent'
  | 'number'
  | 'yesNo'
  | 'level'
  | 'predecessors'
  | 'kind'
  | 'calendar'
  | 'people';

/** A field of an activity as tables name it: shared by what reads tables and what writes them. */
export interface TableField {
  id: string;
  /** What the person reads. */
  label: string;
  type: FieldType;
  /** Headings that mean this field, in lower case without punctuation; the first one is written. */
  headings: string[];
}

const field = (id: string, label: string, type: FieldType, ...headings: string[]): TableField => ({
  id,
  label,
  type,
  headings,
});

export const TABLE_FIELDS = [
  field(
    'ref',
    'Reference',
    'text',
    'reference',
    'ref',
    'id',
    'activity id',
    'activity ref',
    'activity code',
    'activity no',
    'unique id',
    'unique reference',
    'no',
    'nr',
    'number',
    'key',
    'code',
    'task id',
    'item',
    'kennung',
    'nummer',
  ),
  field(
    'name',
    'Name',
    'text',
    'name',
    'activity name',
    'activity',
    'description',
    'activity description',
    'title',
    'task',
    'task name',
    'work',
    'vorgang',
    'bezeichnung',
    'tätigkeit',
    'nom',
    'nombre',
    'libellé',
  ),
  field(
    'start',
    'Start',
    'date',
    'start',
    'start date',
    'begin',
    'begins',
    'from',
    'planned start',
    'current start',
    'forecast start',
    'beginn',
    'anfang',
    'début',
    'inicio',
    'date',
  ),
  field(
    'finish',
    'Finish',
    'date',
    'finish',
    'finish date',
    'end',
    'end date',
    'ends',
    'to',
    'until',
    'due',
    'due date',
    'planned finish',
    'current finish',
    'forecast finish',
    'completion',
    'ende',
    'fin',
  ),
  field(
    'duration',
    'Duration',
    'duration',
    'duration',
    'dur',
    'length',
    'days',
    'working days',
    'duration days',
    'duration d',
    'dauer',
    'durée',
    'duración',
    'original duration',
    'planned duration',
  ),
  field('actualStart', 'Actual start', 'date', 'actual start', 'started', 'started on', 'start actual', 'ist beginn'),
  field(
    'actualFinish',
    'Actual finish',
    'date',
    'actual finish',
    'actual end',
    'finished',
    'finished on',
    'completed',
    'completed on',
    'finish actual',
    'ist ende',
  ),
  field(
    'percent',
    'Percent complete',
    'percent',
    'percent complete',
    'complete',
    '% complete',
    '%',
    'percent',
    'progress',
    'pct',
    'pct complete',
    'done',
    'fortschritt',
  ),
  field(
    'remaining',
    'Remaining duration',
    'duration',
    'remaining duration',
    'remaining',
    'remaining days',
    'restdauer',
  ),
  field(
    'baselineStart',
    'Baseline start',
    'date',
    'baseline start',
    'base start',
    'contract start',
    'original start',
    'promised start',
  ),
  field(
    'baselineFinish',
    'Baseline finish',
    'date',
    'baseline finish',
    'baseline end',
    'base finish',
    'contract finish',
    'original finish',
    'promised finish',
  ),
  field(
    'predecessors',
    'Predecessors',
    'predecessors',
    'predecessors',
    'predecessor',
    'preds',
    'pred',
    'depends on',
    'after',
    'follows',
    'vorgänger',
    'prédécesseurs',
  ),
  field(
    'outline',
    'Outline code',
    'text',
    'outline code',
    'outline',
    'wbs',
    'wbs code',
    'outline number',
    'work breakdown structure',
    'psp',
    'psp code',
  ),
  field('level', 'Outline level', 'level', 'outline level', 'level', 'indent', 'ebene', 'niveau'),
  field('parent', 'Summary it belongs to', 'text', 'parent', 'summary ref', 'parent ref', 'parent id', 'belongs to'),
  field('summary', 'Is a summary', 'yesNo', 'summary', 'is summary', 'summary row', 'summary activity', 'group row'),
  field('milestone', 'Is a milestone', 'yesNo', 'milestone', 'is milestone', 'meilenstein'),
  field('kind', 'Kind', 'kind', 'kind', 'activity kind', 'activity type', 'type', 'row type', 'art'),
  field('calendar', 'Calendar', 'calendar', 'calendar', 'calendar name', 'working week', 'kalender'),
  field('deadline', 'Deadline', 'date', 'deadline', 'must finish by', 'late finish allowed', 'no later than'),
  field('fixedStart', 'Fixed start', 'date', 'fixed start', 'fixed date', 'fixed on', 'start fixed'),
  field(
    'notEarlier',
    'Start not earlier than',
    'date',
    'not earlier than',
    'start not earlier than',
    'not before',
    'earliest start',
    'available from',
  ),
  field(
    'responsible',
    'Responsible',
    'people',
    'responsible',
    'owner',
    'assigned to',
    'lead',
    'resource',
    'resources',
    'verantwortlich',
  ),
  field(
    'effort',
    'Budgeted effort (hours)',
    'number',
    'effort',
    'budgeted effort',
    'hours',
    'effort hours',
    'planned hours',
    'budgeted hours',
    'aufwand',
  ),
  field('actualEffort', 'Actual effort (hours)', 'number', 'actual effort', 'actual hours', 'hours spent'),
  field(
    'cost',
    'Budgeted cost',
    'number',
    'cost',
    'budget',
    'budgeted cost',
    'planned cost',
    'value',
    'amount',
    'kosten',
  ),
  field('actualCost', 'Actual cost', 'number', 'actual cost', 'cost to date', 'spent'),
  field(
    'from',
    'From (place)',
    'number',
    'from place',
    'chainage from',
    'from chainage',
    'from station',
    'station from',
    'start chainage',
    'from ch',
  ),
  field(
    'to',
    'To (place)',
    'number',
    'to place',
    'chainage to',
    'to chainage',
    'to station',
    'station to',
    'end chainage',
    'to ch',
  ),
  field(
    'rate',
    'Rate (per working day)',
    'number',
    'rate',
    'daily output',
    'output',
    'rate per day',
    'production rate',
    'output per day',
  ),
  field('crews', 'Crews', 'number', 'crews', 'number of crews', 'gangs'),
  field('occupies', 'Holds its whole stretch', 'yesNo', 'occupies', 'holds its stretch', 'block'),
  field('quantity', 'Quantity', 'number', 'quantity', 'qty', 'menge'),
  field('notes', 'Notes', 'text', 'notes', 'note', 'comment', 'comments', 'remarks', 'bemerkung'),
] as const satisfies readonly TableField[];

export type FieldId = (typeof TABLE_FIELDS)[number]['id'];

const BY_ID = new Map<string, TableField>(TABLE_FIELDS.map((f) => [f.id, f]));
const BY_HEADING = new Map<string, TableField>(
  TABLE_FIELDS.flatMap((f) => f.headings.map((h): [string, TableField] => [h, f])),
);

export const fieldById = (id: string): TableField | undefined => BY_ID.get(id);

/** A heading in the form in which the field table lists them. */
export const plainHeading = (heading: string): string =>
  heading
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase()
    .replace(/[_\-.:()/#*]+/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();

/** The field that a heading names, if it names one. */
export const fieldByHeading = (heading: string): TableField | undefined => BY_HEADING.get(plainHeading(heading));
