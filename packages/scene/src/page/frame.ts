import { isSlide, type PageName, type PageSize, pageSizeOf } from '../brief/pages';

/** Measures of a page that everything on it is laid out by, in points. */
export interface PageFrame {
  width: number;
  height: number;
  margin: number;
  leastType: number;
  /** Greatest size of labels; no title of a lane and no word of the scale is smaller. */
  labelSize: number;
  titleSize: number;
  subtitleSize: number;
  scaleSize: number;
  smallSize: number;
  laneSize: number;
}

/**
 * Sizes grow with the page, but slower than it does.
 *
 * @param grown how much larger than usual type is, for a page with little on it
 */
export function pageFrame(page: PageName, grown = 1, size: PageSize | null = null): PageFrame {
  const { width, height, leastType } = pageSizeOf({ page, size });
  const slide = isSlide(page);
  const growth = Math.sqrt(Math.min(width, height) / 595);
  const half = (size: number) => Math.round(size * 2) / 2;
  const labelSize = Math.max(leastType, half((slide ? 11 : 8) * growth * grown));
  return {
    width,
    height,
    margin: half((slide ? 34 : 29) * growth),
    leastType,
    labelSize,
    titleSize: half((slide ? 24 : 18) * growth * grown ** 0.3),
    subtitleSize: Math.max(leastType, half((slide ? 12 : 8.5) * growth * grown ** 0.3)),
    scaleSize: labelSize,
    smallSize: Math.max(leastType, half((slide ? 9.5 : 7.5) * growth * grown ** 0.5)),
    laneSize: half(labelSize * 1.2),
  };
}
