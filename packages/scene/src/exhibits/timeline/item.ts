import type { Shown } from '../../graph/scene';
import type { Look } from '../../brief/hand';
import type { CodeLook } from './codes';

/** How a thing is drawn: work, a group of activities as one block, a summary line, supporting work, a point in time. */
export type ItemForm = 'bar' | 'group' | 'summary' | 'support' | 'milestone';

/** One thing on the page. */
export interface Item extends CodeLook {
  /** Position in `plan.activities`. */
  index: number;
  ref: string;
  name: string;
  form: ItemForm;
  start: number;
  finish: number;
  /** False for a point at the beginning of its day. */
  atFinish: boolean;
  /** Positions of the activities that it stands for. */
  members: number[];
  /** How many open activities it stands for have no finish that is known. */
  without: number;
  /** Where its start and its finish come from, as positions in `ORIGINS`. */
  from: { start: number; finish: number };
  /** Stretches of interrupted work; null for work in one piece. */
  stretches: { start: number; finish: number }[] | null;
  /** Codes of the lanes that it lies in, outermost first. */
  lane: string[];
  /** The value of the field by which rows are packed; null where rows are free. */
  row: { title: string; rank: number } | null;
  /** A block from one milestone to the next. */
  phase: boolean;
  /** 0 to 1 */
  progress: number;
  /** False where nothing says how much is done: supporting work has no measure of its own. */
  measured: boolean;
  critical: boolean;
  /** The critical work of a group: when it is, and how many members it has; null for what is no group. */
  criticalWork: { spans: { start: number; finish: number }[]; count: number } | null;
  deadline: number | null;
  complete: boolean;
  /** When the edition that is compared with promised it, and by how many working days it is late (ahead: negative). */
  promised: { start: number; finish: number } | null;
  off: number | null;
  /** Not in the edition that is compared with; or only in it. */
  fresh: boolean;
  gone: boolean;
  /** The words of the source where its start or finish is said vaguer than a day; null where both are days. */
  said: { start: string | null; finish: string | null } | null;
  /** What a person has set for it by hand. */
  own: Look | null;
  /** What its shape says where another field than that of the colour gives it; null where that says nothing. */
  shaped: { title: string; rank: number; of: string } | null;
  /** In a lane that is drawn as one row, without labels. */
  folded: boolean;
}

/** Whether a lane is drawn as one row, by the codes on the way to it. */
export const isFolded = (folded: readonly (readonly string[])[], lane: readonly string[]): boolean =>
  folded.some((path) => path.length <= lane.length && path.every((code, k) => lane[k] === code));

/** What becomes of an activity on a page; an empty text for groups. */
export type Fate = '' | 'shown' | 'grouped' | 'leftOut' | 'undated' | 'outside';

export interface Selection {
  items: Item[];
  undated: number[];
  counts: Shown;
  from: number;
  to: number;
  /** What has become of every activity, by position. */
  fates: Fate[];
  /** The last day that anything on the page runs to; null for an empty page. */
  lastDay: number | null;
  firstDay: number | null;
  /** On one of several pages: lanes that begin on an earlier one, by their codes. */
  continued?: ReadonlySet<string>;
}
