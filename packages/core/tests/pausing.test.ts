import { describe, expect, test } from '@jest/globals';
import {
  applyCommand,
  dayOf,
  finishDayOf,
  finder,
  FIVE_DAY,
  isoDate,
  makeActivity,
  makePlan,
  parseIsoDate,
  paused,
  replaced,
  schedulePlan,
  stretchesAt,
} from '../src/index';
import { day } from './helpers';

const iso = (text: string) => parseIsoDate(text)!;
/** Ten working days from Monday 5 January 2026. */
const base = makePlan({
  name: 'Weld',
  calendars: [FIVE_DAY],
  calendar: FIVE_DAY.id,
  activities: [makeActivity({ ref: 'A', start: day('2026-01-05'), finish: day('2026-01-17'), duration: 4800 })],
});
function pausedOn(from: string, to: string, plan = base) {
  const part = paused(plan, schedulePlan(plan), 0, iso(from), iso(to));
  if (!part) return null;
  const { plan: after } = applyCommand(plan, { do: 'changeActivity', ref: 'A', part });
  return after;
}
const said = (plan: typeof base | null) =>
  plan &&
  stretchesAt(plan, schedulePlan(plan), 0)
    .map((x) => `${isoDate(dayOf(x.start))}..${isoDate(finishDayOf(x.finish))}`)
    .join(' ');

describe('pauses', () => {
  test('the work behind a pause goes on after it, as much as before', () => {
    // Three days' pause, Wednesday to Friday of the first week: eight days are left, from Monday 12th to Wednesday 21st.
    const after = pausedOn('2026-01-07', '2026-01-09');
    expect(said(after)).toBe('2026-01-05..2026-01-06 2026-01-12..2026-01-21');
    expect(after!.activities[0]!.duration).toBe(4800);
  });
  test('a second pause pushes on what comes after it only', () => {
    const once = pausedOn('2026-01-07', '2026-01-09')!;
    expect(said(pausedOn('2026-01-14', '2026-01-14', once))).toBe(
      '2026-01-05..2026-01-06 2026-01-12..2026-01-13 2026-01-15..2026-01-22',
    );
  });
  test('a pause over a weekend pushes nothing', () => {
    expect(said(pausedOn('2026-01-10', '2026-01-11'))).toBe('2026-01-05..2026-01-09 2026-01-12..2026-01-16');
  });
  test('a pause outside the work is none', () => {
    expect(pausedOn('2026-01-05', '2026-01-06')).toBeNull();
    expect(pausedOn('2026-02-05', '2026-02-06')).toBeNull();
  });
});

describe('find and replace', () => {
  const looking = { text: 'pier (A)', exact: false, whole: false };
  test('holds as plain text, regardless of capitals unless said otherwise', () => {
    expect(finder(looking)!('Build Pier (a) now')).toBe(true);
    expect(finder({ ...looking, exact: true })!('Build Pier (a)')).toBe(false);
    expect(finder({ ...looking, whole: true })!('Pier (A) x')).toBe(false);
    expect(finder({ ...looking, text: '' })).toBeNull();
  });
  test('puts in what is typed, as it is', () => {
    expect(replaced('Pier (A), pier (a)', looking, 'Jetty $& $1')).toBe('Jetty $& $1, Jetty $& $1');
  });
});
