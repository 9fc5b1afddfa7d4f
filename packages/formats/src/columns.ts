// What interfaces need to know of tables: the fields and what columns can mean. No reader comes with it.
export type { ColumnMap, ColumnMeaning, ColumnStyle, DerivedColumn, Mend } from './intake/columnMap';
export { type FieldId, fieldById, TABLE_FIELDS, type TableField } from './intake/fields';
export type { ColumnTally } from './intake/cells';
export type { Bar, IntakePreview, RowsToPick } from './intake/preview';
export type { ProblemGroup } from './intake/problemGroups';
export type { IntakeChange, IntakeState } from './intake/state';
export { columnLetters } from './table/table';
export { CURRENCIES } from './values/money';
export { isMoneyField } from './intake/fields';
export { RATE_TIMES, type RateTime } from './values/rateTimes';
