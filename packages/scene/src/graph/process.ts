/** Kinds of step, drawn by the symbols of ISO 5807: process, terminator, decision, document, delay. */
export const STEP_KINDS = ['step', 'start', 'end', 'decision', 'document', 'waiting'] as const;
export type StepKind = (typeof STEP_KINDS)[number];

/** A process on a page, for formats that know processes: its lanes, steps and arrows, in points. */
export interface ProcessShapes {
  lanes: { name: string; left: number; right: number; top: number; bottom: number }[];
  steps: {
    ref: string;
    name: string;
    kind: StepKind;
    /** The lane that it stands in, and everyone whose it is. */
    lane: number;
    with: string[];
    phase: string;
    left: number;
    top: number;
    width: number;
    height: number;
  }[];
  arrows: { from: number; to: number; words: string; points: [x: number, y: number][] }[];
}
