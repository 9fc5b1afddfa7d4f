import 'server-only';
import { dayFromCivil } from '@clembo/core';
import { formatDay } from '@clembo/scene/dates';

/** A time of the clock in words, by the clock of the machine that Clembo runs on. */
export function whenChanged(time: Date): string {
  const day = dayFromCivil(time.getFullYear(), time.getMonth() + 1, time.getDate());
  const clock = `${time.getHours()}:${String(time.getMinutes()).padStart(2, '0')}`;
  return `${formatDay(day, 'long')}, ${clock}`;
}
