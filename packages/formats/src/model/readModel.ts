import { looksLikeModel } from '../ifc/read';
import { UnreadableFile } from '../table/table';
import { MOST_CORNERS, MOST_ELEMENTS, type ReadModel } from './modelParts';

export type { ReadModel } from './modelParts';

/** The words of a key: what stands before the identifiers of its elements. */
export const modelKey = (name: string): string =>
  name
    .replace(/\.[^.]*$/, '')
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 40) || 'model';

/**
 * Reads a model of buildings or things: IFC (2x3, 4, 4x3; ISO 16739-1), glTF and GLB (2.0), or a table of blocks.
 *
 * @param key what stands before the identifiers of its elements
 * @throws UnreadableFile
 */
export async function readModel(bytes: Uint8Array, source: string, key: string): Promise<ReadModel> {
  const head = new TextDecoder().decode(bytes.subarray(0, 2000));
  const read = looksLikeModel(head)
    ? (await import('./ifcModel')).readIfcModel
    : head.startsWith('glTF') || /^\s*\{/.test(head)
      ? (await import('./gltfModel')).readGltf
      : (await import('./blocks')).readBlocks;
  const model = await read(bytes, source, key);
  checkBodies(model, source);
  if (model.elements.length === 0) throw new UnreadableFile(`${source} has no elements that could be matched to work.`);
  return model;
}

/** Refuses what cannot be drawn: too much of it, or places that are no numbers. */
function checkBodies({ elements, geometry }: ReadModel, source: string): void {
  if (elements.length > MOST_ELEMENTS)
    throw new UnreadableFile(
      `${source} has ${elements.length} elements; at most ${MOST_ELEMENTS} can be taken in at once. Split the model.`,
    );
  const corners = geometry.shapes.map((s) => s.corners.length / 3);
  const drawn = geometry.parts.reduce((n, p) => n + corners[p.shape]!, 0);
  if (drawn > MOST_CORNERS)
    throw new UnreadableFile(
      `${source} is drawn with ${drawn} corners; at most ${MOST_CORNERS} can be taken in. Save it with less detail, or split it.`,
    );
  const wrongShape = geometry.shapes.findIndex((s) => s.corners.some((v) => !Number.isFinite(v)));
  const wrong = geometry.parts.find((p) => p.shape === wrongShape || p.place.some((v) => !Number.isFinite(v)));
  if (wrong) {
    const e = elements[wrong.element]!;
    throw new UnreadableFile(
      `${source}: the body of “${e.name || e.ref}” has corners that are no numbers. Have the model written again.`,
    );
  }
}
