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
  listPlans,
  type PlanSummary,
  readPlan,
  readPlanHead,
  renamePlan,
  type StoredPlan,
} from './plans';
export { createWorkspace, firstWorkspace } from './workspaces';
