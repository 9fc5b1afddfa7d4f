import { building } from './building';
import { event } from './event';
import { relocation } from './relocation';
import { shore } from './shore';
import type { Starter } from './write';

export type { Starter };

/** Kinds of undertakings that everybody can begin from. All of them are made up. */
export const STARTERS: readonly Starter[] = [building, shore, relocation, event];
