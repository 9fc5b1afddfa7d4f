import { expose } from 'comlink';
import { OpenPlan } from './openPlan';
import { activityAnswers } from './registry/activities';
import { bookAnswers } from './registry/books';
import { ledgerAnswers } from './registry/ledger';
import { lineAnswers } from './registry/lines';
import { measureAnswers } from './registry/measure';
import { modelAnswers } from './registry/models';
import { pageAnswers } from './registry/pages';
import { workAnswers } from './registry/work';

const open = new OpenPlan();

/** Holds a plan, schedules it once, and answers what screens ask of it, off the main thread. */
const room = {
  open: (planId: string) => open.open(planId),
  take: (event: Parameters<OpenPlan['take']>[0]) => open.take(event),
  ...pageAnswers(open),
  ...ledgerAnswers(open),
  ...activityAnswers(open),
  ...bookAnswers(open),
  ...workAnswers(open),
  ...measureAnswers(open),
  ...lineAnswers(open),
  ...modelAnswers(open),
};

export type PlanRoom = typeof room;

expose(room);
