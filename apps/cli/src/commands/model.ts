import { basename } from 'node:path';
import { bodyOf } from '@clembo/core';
import { modelKey, readModel } from '@clembo/formats';
import { readBytes } from '../load';

/** What a model holds: elements by class and storey, what they measure, and what could not be read. */
export async function modelCommand(file: string, asJson: boolean): Promise<string> {
  const name = basename(file);
  const { elements, geometry, assigned, notes } = await readModel(await readBytes(file), name, modelKey(name));
  const body = bodyOf([{ count: elements.length, geometry }]);
  if (asJson)
    return `${JSON.stringify(
      {
        elements: elements.map((e, i) => ({
          ...e,
          box: Number.isNaN(body.boxes[i * 6]!)
            ? null
            : Array.from(body.boxes.subarray(i * 6, i * 6 + 6), (v, k) => v + geometry.origin[k % 3]!),
        })),
        assigned,
        notes,
      },
      null,
      2,
    )}\n`;
  const groups = new Map<string, { count: number; volume: number }>();
  for (const e of elements) {
    const key = `${e.class}\t${e.storey}`;
    const own = groups.get(key) ?? { count: 0, volume: 0 };
    groups.set(key, { count: own.count + 1, volume: own.volume + (e.volume ?? 0) });
  }
  const lines = [...groups]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([key, { count, volume }]) => `${key}\t${count}\t${volume > 0 ? volume.toFixed(1) : ''}`);
  return [
    `${elements.length} elements, ${geometry.shapes.length} shapes`,
    'Class\tStorey\tElements\tCubic metres',
    ...lines,
    ...(assigned.length > 0 ? [`${assigned.length} tasks are assigned to elements`] : []),
    ...notes,
    '',
  ].join('\n');
}
