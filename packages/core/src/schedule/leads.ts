import { isIgnored } from './demands';
import { endOf } from './drawn';
import type { Adjacency, Dates, Network, Order } from './model';
import { NONE } from './slots';

/** What a node is to the end of the plan. */
export const LEADS = 1;
/** It ends the plan, and links lead to it. */
export const ENDS = 2;
/** It ends the plan, and nothing leads to it: it is the last thing, but decides nothing. */
export const IS_LAST = 3;

/** Which nodes lead by links to what ends the plan; what is complete decides nothing any more. */
export function leadPass(net: Network, adj: Adjacency, dates: Dates, { sequence, blocked }: Order): Uint8Array {
  const leads = new Uint8Array(net.count);
  let last = NONE;
  const counts = (v: number) => dates.earlyFinish[v] !== NONE && !blocked[v];
  for (let v = 0; v < net.count; v++)
    if (counts(v) && net.actualFinish[v] === NONE) last = Math.max(last, endOf(net, dates, v));
  if (last === NONE || last < dates.finish) return leads;
  for (let k = sequence.length - 1; k >= 0; k--) {
    const v = sequence[k]!;
    if (!counts(v) || net.actualFinish[v] !== NONE) continue;
    if (endOf(net, dates, v) === last) {
      leads[v] = isLedTo(net, adj, v) ? ENDS : IS_LAST;
      continue;
    }
    for (let j = adj.outAt[v]!; j < adj.outAt[v + 1]!; j++) {
      const w = net.linkTo[adj.out[j]!]!;
      if (leads[w] === 0 || isIgnored(net, adj.out[j]!)) continue;
      leads[v] = LEADS;
      break;
    }
  }
  return leads;
}

function isLedTo(net: Network, adj: Adjacency, v: number): boolean {
  for (let k = adj.intoAt[v]!; k < adj.intoAt[v + 1]!; k++) if (!isIgnored(net, adj.into[k]!)) return true;
  return false;
}

/** Whether a node is critical where its float says so. */
export const decides = (leads: number): boolean => leads === LEADS || leads === ENDS;
