export { type Access, AccessRefused } from './access';
export { PlanRefused } from './accept';
export { changePlan, VersionPassed } from './changePlan';
export { orderKeys } from './order';
export { type Database, migrateStore, openStore, type Store } from './database';
export { createExhibit, deleteExhibit, listExhibits, readExhibit, type StoredExhibit, updateExhibit } from './exhibits';
export {
  createIntake,
  deleteIntake,
  findColumnMap,
  keepColumnMap,
  readIntake,
  type StoredIntake,
  updateIntake,
} from './intakes';
export {
  createPlan,
  deletePlan,
  type EditionSummary,
  type KeptEdition,
  listPlans,
  type PlanSummary,
  readPlan,
  readPlanHead,
  type Source,
  type StoredPlan,
} from './plans';
export { createWorkspace, firstWorkspace } from './workspaces';
