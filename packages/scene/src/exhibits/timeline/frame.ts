import type { TimelineBrief } from '../../brief/brief';
import { PAGES } from '../../brief/brief';

/** Measures of a page that everything on it is laid out by, in points. */
export interface PageFrame {
  width: number;
  height: number;
  margin: number;
  leastType: number;
  /** Greatest and smallest size of labels. */
  largestLabel: number;
  titleSize: number;
  subtitleSize: number;
  scaleSize: number;
  smallSize: number;
  laneSize: number;
}

/** Sizes grow with the page, but slower than it does. */
export function pageFrame(brief: TimelineBrief): PageFrame {
  const { width, height, leastType } = PAGES[brief.page];
  const slide = brief.page === 'wide slide';
  const growth = Math.sqrt(Math.min(width, height) / 595) ** 1.0;
  const half = (size: number) => Math.round(size * 2) / 2;
  return {
    width,
    height,
    margin: half((slide ? 34 : 29) * growth),
    leastType,
    largestLabel: half((slide ? 16 : 12) * growth),
    titleSize: half((slide ? 24 : 17) * growth),
    subtitleSize: half((slide ? 12 : 8.5) * growth),
    scaleSize: Math.max(leastType, half((slide ? 10.5 : 7.5) * growth)),
    smallSize: Math.max(leastType, half((slide ? 9 : 7) * growth)),
    laneSize: half((slide ? 12 : 9) * growth),
  };
}
