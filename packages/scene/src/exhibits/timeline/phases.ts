import type { Item } from './item';

/**
 * Phases: the stretch from one milestone of a lane to the next becomes a block that bears the name of the
 * milestone at its end. The first milestone of a lane ends nothing and stays a point.
 */
export function asPhases(items: Item[]): Item[] {
  const lanes = new Map<string, Item[]>();
  for (const item of items) {
    if (item.form !== 'milestone') continue;
    const key = item.lane.join('\u0000');
    const list = lanes.get(key);
    if (list) list.push(item);
    else lanes.set(key, [item]);
  }
  const phases = new Map<Item, Item>();
  for (const list of lanes.values()) {
    list.sort((a, b) => a.finish - b.finish || a.index - b.index);
    list.forEach((item, k) => {
      const before = list[k - 1];
      // Two on one moment have nothing between them.
      if (before && before.finish < item.finish) phases.set(item, phaseOf(item, before));
    });
  }
  return items.map((item) => phases.get(item) ?? item);
}

/** Nobody has said how much of a phase is done before it is. */
function phaseOf(item: Item, before: Item): Item {
  const start = before.finish;
  const promised = item.promised && {
    start: Math.min(before.promised?.finish ?? start, item.promised.finish),
    finish: item.promised.finish,
  };
  return {
    ...item,
    form: 'bar',
    phase: true,
    start,
    atFinish: true,
    progress: item.complete ? 1 : 0,
    measured: false,
    promised,
  };
}
