import type { Band } from '@clembo/core';
import { CHART_LOOK as L } from '@/ui/Chart';

/** How far off something is, as a colour: the same everywhere. */
export const BAND_COLOUR: Record<Band, string> = {
  ahead: L.harebell,
  inTolerance: '#8aa6a3',
  watch: L.marigold,
  breach: L.madder,
};

/** The same for words, which need more contrast. */
export const BAND_TEXT: Record<Band, string> = {
  ahead: 'text-harebell-deep',
  inTolerance: 'text-ink',
  watch: 'text-marigold-deep',
  breach: 'text-madder',
};
