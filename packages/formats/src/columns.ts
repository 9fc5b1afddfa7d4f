// What interfaces need to know of tables: the fields and what columns can mean. No reader comes with it.
export type { ColumnMap, ColumnMeaning } from './intake/columnMap';
export { type FieldId, fieldById, TABLE_FIELDS, type TableField } from './intake/fields';
