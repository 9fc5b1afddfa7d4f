export { type Access, AccessRefused, mayComment, mayOwn, mayWrite, type Role, ROLES } from './access';
export { PlanRefused } from './accept';
export { changePlan, VersionPassed } from './changePlan';
export { orderKeys } from './order';
export { type Database, isMigrated, migrateStore, openStore, type Store } from './database';
export {
  type ChangedExhibit,
  changeExhibit,
  createExhibit,
  deleteExhibit,
  ExhibitPassed,
  listExhibits,
  orderExhibits,
  readExhibit,
  restoreExhibit,
  type StoredExhibit,
} from './exhibits';
export {
  createIntake,
  holdIntakeFiles,
  deleteIntake,
  type IntakeFile,
  keepChoices,
  keepReading,
  knownMaps,
  listIntakes,
  PlanGone,
  readIntake,
  readIntakeFiles,
  readPreview,
  reopenIntake,
  type StoredIntake,
} from './intakes';
export {
  askFor,
  cancelJob,
  cancelledOf,
  countJobs,
  endJob,
  hasEnded,
  type JobView,
  readJob,
  readJobFile,
  reportJob,
  reviveJobs,
  stillAtWork,
  takeJob,
} from './jobs/jobs';
export {
  BUNDLE,
  Choices,
  FOLIO_FORMATS,
  type FolioFormat,
  JobInput,
  type JobState,
  MOST_PAGES,
  PAGE_FORMATS,
  type PageFormat,
  PLAN_FORMATS,
  type PlanFormat,
  PlanWish,
} from './jobs/kinds';
export { JobWatch } from './jobs/watch';
export { IntakeGone, JobCancelled, keepPlan, type MadeOfIntake } from './keepPlan';
export { deletePlan, findPlans, listPlans, type PlanSummary, restorePlan } from './plans';
export {
  type EditionSummary,
  listEditions,
  readPlan,
  readPlanAsColumns,
  readPlanHead,
  readPlanMark,
  type StoredPlan,
} from './readPlan';
export { StoreDamaged } from './damaged';
export { settleOwed } from './owed';
export { createPlan, type KeptEdition } from './writePlan';
export { describeEdition, keepEdition, workOnEdition } from './editions';
export {
  keepRefresh,
  listRefreshes,
  type MadeRefresh,
  RefreshConflict,
  type RefreshSummary,
  turnRefresh,
} from './refresh';
export {
  lastSources,
  listSources,
  type NewSource,
  type Origin,
  readSource,
  type SourceSummary,
  type StoredSource,
} from './sources';
export {
  changeSettings,
  createWorkspace,
  firstWorkspace,
  localeOf,
  readSettings,
  type WorkspaceSettings,
} from './workspaces';
export { type ChangeSummary, listPlanChanges, readTurns, type Turns } from './history';
export { turnChange, TurnRefused, turnTo } from './turnChange';
export { dropBook, keepBook, type KeptBook, listKeptBooks } from './keptBooks';
export { dropBrief, keepBrief, type KeptBrief, listKeptBriefs } from './keptBriefs';
export { dropStarter, keepStarter, listStarters, readStarter, type StarterSummary } from './starters';
export {
  deleteModel,
  type KeptModel,
  keepModel,
  listModels,
  type ModelSummary,
  putModel,
  putReadModel,
  readElements,
  readGeometry,
  readModelFile,
  refuseModel,
  takeModel,
} from './models';
export {
  changeFolio,
  createFolio,
  deleteFolio,
  FolioPassed,
  listFolios,
  noteWritten,
  readFolio,
  restoreFolio,
  type StoredFolio,
} from './folios';
export { keepWholePlan, readWholePlan } from './wholePlan';
export { keepArrangement, type KeptArrangement, listArrangements } from './arrangements';
export { type PlanStep, readSteps } from './steps';
export { HERE_CHANNEL, type Looker, tellHere } from './here';
export { type Folders, FolderTrouble, foldersBelow, type FoundFile, troubleOf } from './folders';
export {
  askDueRuns,
  askWeekly,
  dateIn,
  dropWeekly,
  keepWeekly,
  nextTime,
  readWeekly,
  reportWeekly,
  timeIn,
  WEEKLY_KINDS,
  type Weekly,
  type WeeklyReport,
  WeeklySaid,
  type WeeklyState,
} from './weekly';
export {
  accessTo,
  accessToPlan,
  type Belonging,
  belongingsOf,
  changeRole,
  hasAccounts,
  listPeople,
  type Member,
  namesOf,
  ownFirst,
  planOf,
  removeMember,
} from './people';
export { dropInvitation, forgetInvitations, invite, readInvitation, takeInvitation } from './invitations';
export { addMail, type Letter, listMail, sendMail } from './mail';
export { type Deed, DEED_KINDS, type DeedKind, listDeeds, noteDeed } from './deeds';
export { type Limit, limits } from './limits';
export { credential, person, signIn, verification } from './schema';
export {
  accessOfShared,
  isPassword,
  keepShared,
  type Lay,
  LAYS,
  listShared,
  markOfShared,
  type OpenedShared,
  openShared,
  readShared,
  revokeShared,
  type SharedSummary,
  type SharedWish,
  sharePage,
} from './shared';
export { type Cause, causesOf, faultLines } from './fault';
export {
  addCommentFile,
  changeComment,
  type Comment,
  dropComment,
  endComment,
  listComments,
  listNotices,
  mailNotices,
  MOST_TEXT,
  type Notice,
  type OpenComment,
  openCommentsOn,
  planOfComment,
  readCommentFile,
  readNotices,
  sayComment,
  type Spoken,
} from './comments';
