export { decodeText } from './csv/decode';
export { writeCsv } from './csv/write';
export { guessDelimiter, readCsv, readDelimited, readPasted } from './csv/read';
export { ColumnMap, ColumnMeaning, ColumnStyle, DerivedColumn, Mend, RowPick } from './intake/columnMap';
export { guessBelow, guessColumnMap, guessWithReasons, type Reason } from './intake/guess';
export { needsYear, orderInTable, settledOrder } from './intake/settle';
export { type FieldId, fieldById, TABLE_FIELDS, type TableField } from './intake/fields';
export { mainTable } from './intake/likeness';
export {
  type Bar,
  hasRows,
  type IntakePreview,
  PASTED,
  previewIntake,
  type RowsToPick,
  rowsToPick,
} from './intake/preview';
export { groupProblems, type ProblemGroup } from './intake/problemGroups';
export { type JointIntake, readParts, type SourcePlace, titlesOf } from './intake/readParts';
export { recallMap } from './intake/recall';
export {
  beginState,
  changeState,
  fitted,
  IntakeChange,
  IntakePart,
  IntakeState,
  shownPart,
  usedParts,
} from './intake/state';
export { type Problem, problemPlace, problemWords } from './intake/problems';
export { PROMISED_IN_SOURCE, promisedEdition } from './intake/promised';
export { type BaselineDates, type Intake, type IntakeOptions, readPlan } from './intake/readPlan';
export { depthOf, readPlanJson, writePlanJson } from './json/planJson';
export { looksLikeJson, readTables } from './readFile';
export { packTables, tablesText, unpackTables } from './table/packed';
export { columnLetters, MAX_FILE_BYTES, type Table, UnreadableFile } from './table/table';
export {
  decimalEvidence,
  percentScale,
  type ReadDuration,
  readDuration,
  readNumber,
  readPercent,
  readYesNo,
  toMinutes,
} from './values/amounts';
export { type DateOrder, orderEvidence, type ReadDate, readDate, readRange } from './values/dates';
export { readPredecessors } from './values/predecessors';
export { modelKey, readModel, type ReadModel } from './model/readModel';
export { readXlsx } from './xlsx/read';
export { readAgain, type Reading, type SecondReading } from './intake/again';
export { planSchema } from './json/planSchema';
export { writePlanCalendar } from './out/calendarFile';
export { writeMatchesCsv } from './out/matchesFile';
export { writePlanModel } from './out/modelFile';
export { writePlanDot, writePlanGraphml } from './out/graphs';
export { writePlanCsv, writePlanXlsx } from './out/tables';
export { looksLikeBundle, readBundle, writeBundle } from './bundle/bundle';
