/** The faces that pages are set in. Labels are condensed, so that more of them fit. */
export const FACES = ['label', 'labelStrong', 'text', 'textStrong', 'title'] as const;
export type Face = (typeof FACES)[number];

/** What a face is, and how wide its characters are, in units of its em. */
export interface FaceMetrics {
  family: string;
  file: string;
  weight: number;
  unitsPerEm: number;
  ascent: number;
  descent: number;
  xHeight: number;
  capHeight: number;
  widths: Record<string, number>;
}

export type FontMetrics = Record<Face, FaceMetrics>;
