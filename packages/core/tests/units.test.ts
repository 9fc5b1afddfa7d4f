import { expect, test } from '@jest/globals';
import { FIVE_DAY, lengthWords, minutesPerUnit, SIX_DAY } from '../src/index';

// Common practice: days by the calendar's own length, a month of four weeks; elapsed days are those of the clock
test.each([
  [960, 'day', FIVE_DAY, '2 working days'],
  [480, 'day', FIVE_DAY, '1 working day'],
  [-720, 'day', FIVE_DAY, '-1.5 working days'],
  [4800, 'week', FIVE_DAY, '2 working weeks'],
  [5760, 'week', SIX_DAY, '2 working weeks'],
  [9600, 'month', FIVE_DAY, '1 working month'],
  [90, 'hour', FIVE_DAY, '1.5 working hours'],
  [4320, 'elapsedDay', FIVE_DAY, '3 elapsed days'],
  [0, 'minute', FIVE_DAY, '0 working minutes'],
] as const)('%i minutes in units of a %s', (minutes, unit, calendar, words) => {
  expect(lengthWords(minutes, unit, calendar)).toBe(words);
  expect(minutesPerUnit(unit, calendar)).toBeGreaterThan(0);
});
