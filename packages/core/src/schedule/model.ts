import type { Resolution, WorkingTime } from '../calendar/workingTime';
import type { Finding } from '../findings/finding';
import type { Outline } from '../outline/outline';

/** Links that have two nodes as ends, in arrays. */
export interface LinkArrays {
  linkCount: number;
  linkFrom: Int32Array;
  linkTo: Int32Array;
  linkType: Uint8Array;
  linkLag: Int32Array;
  /** Position in `times`, or ELAPSED. */
  linkCalendar: Int16Array;
  /** Position in `plan.links` of each link of the network (several where a summary was read as its content). */
  linkOf: Int32Array;
}

/**
 * The plan as the passes need it: what can be scheduled as nodes, in arrays of whole slots, and links that
 * have two nodes as ends. Summaries are read as what they contain; levels of effort stay outside.
 */
export interface Network extends LinkArrays {
  resolution: Resolution;
  /** Minutes of wall-clock time in a slot of the time axis. */
  slotMinutes: number;
  times: WorkingTime[];
  /** Earliest start of what nothing else holds, as a slot. */
  planStart: number;
  /** Slot of the status date, or NONE. */
  status: number;
  retainedLogic: boolean;
  count: number;
  activityOf: Int32Array;
  /** Node of an activity's position, or -1. */
  nodeOf: Int32Array;
  /** Position in `times` of the calendar of an activity's position. */
  calendarOf: Uint16Array;
  calendar: Uint16Array;
  role: Uint8Array;
  duration: Int32Array;
  remaining: Int32Array;
  actualStart: Int32Array;
  actualFinish: Int32Array;
  startNotBefore: Int32Array;
  finishNotBefore: Int32Array;
  startNotAfter: Int32Array;
  finishNotAfter: Int32Array;
  fixedStart: Int32Array;
  fixedFinish: Int32Array;
  asLate: Uint8Array;
  /** 1 for what is in progress or complete. */
  begun: Uint8Array;
  /** 1 for work with a length that has not begun and is held by links alone. */
  plain: Uint8Array;
  findings: Finding[];
}

/** Links of a network, by the node they leave and by the node they reach, as compressed rows. */
export interface Adjacency {
  /** Links into node v are `into[intoAt[v]] … into[intoAt[v + 1] - 1]`; likewise `out`. */
  intoAt: Int32Array;
  into: Int32Array;
  outAt: Int32Array;
  out: Int32Array;
}

export interface Order {
  /** Nodes in an order in which every link points forward; without what is in or behind a loop. */
  sequence: Int32Array;
  /** The loops, each as its nodes in the order of the links. */
  loops: number[][];
  /** 1 for every node that is in or behind a loop. */
  blocked: Uint8Array;
}

/**
 * Early and late dates of the nodes, in slots: starts are the working slot at which work begins, finishes the
 * boundary after the last one. The method is the critical path method with the four link types of the
 * precedence diagram, worked in calendars: a link holds when what it demands (demands.ts) is not after the
 * successor, and each date is the first (last) slot or boundary of the activity's own calendar for which all
 * of them hold.
 */
export interface Dates {
  earlyStart: Int32Array;
  earlyFinish: Int32Array;
  lateStart: Int32Array;
  lateFinish: Int32Array;
  /** Where the links alone would lead the finish of an activity with a fixed date; else the early finish. */
  logicFinish: Int32Array;
  /** 1 for a point in time that stands at the end of a day (or minute) rather than at a beginning. */
  atFinish: Uint8Array;
  /** Of plain work: how many working slots of its calendar lie before its early start, and before its late finish. */
  startRank: Int32Array;
  finishRank: Int32Array;
  /** The last early finish of all. */
  finish: number;
}

/** Float in slots of the activity's own calendar; NONE where it is not defined (what is complete has none). */
export interface Floats {
  total: Int32Array;
  free: Int32Array;
  /** How far, by link, the predecessor can slip before the successor's early date moves. */
  slack: Int32Array;
}

/** Dates as the source states them, completed from the duration where one of the two is missing. */
export interface GivenDates {
  start: Int32Array;
  finish: Int32Array;
  /** 1 for a point in time given by its finish. */
  atFinish: Uint8Array;
  /** Where each end comes from, as positions in `ORIGINS`. */
  startFrom: Uint8Array;
  finishFrom: Uint8Array;
}

/** A link that says where supporting work begins or ends: at the start or the finish of something else. */
export interface Anchor {
  /** Positions of the activities that it hangs on: several for a summary. */
  others: number[];
  side: 'start' | 'finish';
  /** Which of their dates is meant. */
  at: 'start' | 'finish';
}

/** Supporting work with what it hangs on. */
export interface Support {
  position: number;
  anchors: Anchor[];
}

/**
 * What was computed for a plan, in arrays over the positions of `plan.activities`. Moments are minutes since
 * 1970; floats are working minutes of the activity's own calendar; NONE where a value is not defined.
 */
export interface Schedule {
  outline: Outline;
  network: Network;
  adjacency: Adjacency;
  order: Order;
  /** Dates of the nodes as lengths and links give them. */
  nodeDates: Dates;
  /** Dates of the nodes as they are shown, with the late ones that follow from these: as drawn, or the computed ones. */
  shown: Dates;
  /** Float and slack of the dates that are shown. */
  floats: Floats;
  /** 1 for every node that leads by links to what ends the plan; 2 for what ends it, and is led to; 3 for what is last. */
  leads: Uint8Array;
  support: Support[];
  /** The dates that exhibits show: as drawn or as computed, as the plan says; summaries are rolled up. */
  start: Int32Array;
  finish: Int32Array;
  /** Where each shown end comes from, as positions in `ORIGINS`; of a summary, where the end that decides comes from. */
  startFrom: Uint8Array;
  finishFrom: Uint8Array;
  given: GivenDates;
  /** As computed, whatever is shown. */
  earlyStart: Int32Array;
  earlyFinish: Int32Array;
  /** Late dates and float belong to the dates that are shown. */
  lateStart: Int32Array;
  lateFinish: Int32Array;
  totalFloat: Int32Array;
  freeFloat: Int32Array;
  /** 1 for what has float at most the threshold and leads by links to what ends the plan, or ends it and is led to. */
  critical: Uint8Array;
  /** 1 for a point in time that stands at the end of its day. */
  atFinish: Uint8Array;
  /** The last computed finish of the plan, or NONE. */
  planFinish: number;
  findings: Finding[];
}
