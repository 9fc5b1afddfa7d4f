import 'server-only';
import { createHash, timingSafeEqual } from 'node:crypto';

const digest = (text: string): Buffer => createHash('sha256').update(text).digest();

/** Whether two secrets are the same; how long that takes says nothing about them. */
export const isSame = (a: string, b: string): boolean => timingSafeEqual(digest(a), digest(b));
