import type { BuildElement, ModelGeometry, Shape } from '@clembo/core';
import { UnreadableFile } from '../table/table';

/** What a model holds: its elements, their bodies, and which tasks of its own work on them. */
export interface ReadModel {
  elements: BuildElement[];
  geometry: ModelGeometry;
  /** Elements by the references and names of the tasks that the model assigns to them. */
  assigned: { activity: string; name: string; elements: string[] }[];
  /** What could not be read of it, in words. */
  notes: string[];
}

/** The most that one model may hold. */
export const MOST_ELEMENTS = 200_000;
export const MOST_CORNERS = 20_000_000;
/** Names of properties and values are cut behind so many characters. */
export const LONGEST = { name: 90, value: 500 } as const;

/** Places about a common origin, so that coordinates of a country lose nothing. */
export function aboutOrigin(shapes: Shape[], parts: ModelGeometry['parts']): ModelGeometry {
  const [first] = parts;
  const origin: [number, number, number] = first
    ? [Math.round(first.place[9]!) + 0, Math.round(first.place[10]!) + 0, Math.round(first.place[11]!) + 0]
    : [0, 0, 0];
  for (const p of parts) for (let k = 0; k < 3; k++) p.place[9 + k]! -= origin[k]!;
  return { origin, shapes, parts };
}

/** @throws UnreadableFile where two elements have the same identifier */
export function checkOnce(elements: readonly BuildElement[], source: string): void {
  const seen = new Set<string>();
  for (const { ref, name } of elements) {
    if (seen.has(ref))
      throw new UnreadableFile(
        `${source}: two elements have the identifier ${ref.slice(ref.indexOf('/') + 1)} (one is “${name}”); have the model written again with an identifier for each.`,
      );
    seen.add(ref);
  }
}

export const cut = (value: string, most: number): string => (value.length > most ? value.slice(0, most) : value);
