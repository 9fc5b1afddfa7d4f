import { buildRange, type BuildTimes } from '@clembo/core';
import type { BuildBrief } from '../../brief/build';
import type { PlayFrame } from '../../graph/scene';
import { formatDay } from '../../text/dates';
import type { ComposeInput } from '../composed';
import { pictureMaker } from './frame';
import { countWords, standingsOf } from './standings';

/** So many days are shown one after the other. */
const FRAMES = 36;
/** The size of a picture that plays, in points of the page. */
const SIZE = { width: 480, height: 300 };

/** The model from its first day to its last, one picture after the other, each with what stands in words. */
export function playFrames(input: ComposeInput<BuildBrief>, times: BuildTimes): PlayFrame[] {
  const range = buildRange(times);
  if (!input.model || !range) return [];
  const length = range.last - range.first + 1;
  const count = Math.min(FRAMES, length + 1);
  const days = [
    ...new Set(
      Array.from({ length: count }, (_, k) => Math.round(range.first - 1 + (length * k) / Math.max(1, count - 1))),
    ),
  ];
  const dates = days.map((day) => ({ name: '-', start: day * 1440, finish: null }));
  const brief = { ...input.brief, when: 'own' as const, dates };
  const standings = standingsOf({ ...input, brief }, input.model);
  const make = pictureMaker(brief, standings);
  return standings.dates.flatMap((date): PlayFrame[] => {
    const picture = make(date, SIZE.width, SIZE.height);
    return picture
      ? [{ title: formatDay(date.day, 'long'), words: countWords(date).join(', '), data: picture.data }]
      : [];
  });
}
