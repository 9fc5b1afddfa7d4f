import type { Activity, Link, Plan } from '@clembo/core';
import { displaced } from './order';

/** What has to be written so that one state of an edition becomes another that a command made of it. */
export interface Difference {
  /** References of activities that are written anew, or go. */
  rewritten: Set<string>;
  /** Some have come, or stand in another place: they need keys between those of their neighbours. */
  reordered: boolean;
  linksRemoved: Link[];
  linksAdded: Link[];
}

/**
 * The difference between two states. A command leaves what it does not change as the same object, so whatever is
 * another object is written.
 */
export function differenceOf(before: Plan, after: Plan): Difference {
  const gone = without(before.activities, after.activities);
  const come = without(after.activities, before.activities);
  const rewritten = new Set([...gone, ...come].map((a) => a.ref));
  const moved = movedBetween(before.activities, after.activities);
  const wasThere = new Set(gone.map((a) => a.ref));
  for (const ref of moved) rewritten.add(ref);
  return {
    rewritten,
    reordered: moved.length > 0 || come.some((a) => !wasThere.has(a.ref)),
    linksRemoved: without(before.links, after.links),
    linksAdded: without(after.links, before.links),
  };
}

function without<T>(list: readonly T[], other: readonly T[]): T[] {
  if (list === other) return [];
  const there = new Set(other);
  return list.filter((x) => !there.has(x));
}

function movedBetween(before: readonly Activity[], after: readonly Activity[]): string[] {
  if (before === after) return [];
  const [was, is] = [new Set(before.map((a) => a.ref)), new Set(after.map((a) => a.ref))];
  const from = before.map((a) => a.ref).filter((ref) => is.has(ref));
  const to = after.map((a) => a.ref).filter((ref) => was.has(ref));
  return from.every((ref, i) => ref === to[i]) ? [] : displaced(from, to);
}
