import { boxShape, edgesOf, makeElement, type ModelGeometry, type Shape } from '@clembo/core';
import { type Document, type Mesh, type Node, Primitive, WebIO } from '@gltf-transform/core';
import { UnreadableFile } from '../table/table';
import { LONGEST, MOST_CORNERS, aboutOrigin, checkOnce, cut, type ReadModel } from './modelParts';

/**
 * Reads a glTF model (2.0, with its buffers in it, or GLB): every node with a mesh is an element, named by its node,
 * with what stands in its extras as properties. Metres, and y is up, as the standard has it.
 *
 * @throws UnreadableFile
 */
export async function readGltf(bytes: Uint8Array, source: string, key: string): Promise<ReadModel> {
  const document = await opened(bytes, source);
  const elements: ReadModel['elements'] = [];
  const shapes: Shape[] = [];
  const shapeOf = new Map<Primitive, number>();
  const parts: ModelGeometry['parts'] = [];
  const seen = new Map<string, number>();
  let corners = 0;
  const nodes = document.getRoot().listNodes();
  for (const [k, node] of nodes.entries()) {
    const mesh = node.getMesh();
    if (!mesh) continue;
    const extras = node.getExtras();
    const said = [extras.identifier, extras.guid, node.getName(), `node ${k + 1}`].find(
      (v): v is string => typeof v === 'string' && v.trim() !== '',
    )!;
    const times = (seen.get(said) ?? 0) + 1;
    seen.set(said, times);
    const e = makeElement({
      ref: `${key}/${cut(said, 140)}${times > 1 ? ` ${times}` : ''}`,
      name: cut(node.getName() || mesh.getName(), 300),
      class: cut(word(extras.class) || 'Other element', 100),
      type: cut(word(extras.type) || mesh.getName(), 300),
      storey: cut(word(extras.storey) || aboveOf(node), 200),
    });
    for (const [name, value] of Object.entries(extras).slice(0, 300))
      if (['string', 'number', 'boolean'].includes(typeof value))
        e.properties[cut(name, LONGEST.name)] = cut(word(value), LONGEST.value);
    const m = worldOf(node);
    for (const primitive of triangleParts(mesh)) {
      let shape = shapeOf.get(primitive);
      if (shape === undefined) {
        shape = shapes.length;
        shapes.push(shapeIn(primitive));
        shapeOf.set(primitive, shape);
      }
      corners += shapes[shape]!.corners.length / 3;
      if (corners > MOST_CORNERS)
        throw new UnreadableFile(`${source} is drawn with more than ${MOST_CORNERS} corners. Split it.`);
      parts.push({ element: elements.length, shape, place: m });
    }
    elements.push(e);
  }
  checkOnce(elements, source);
  return { elements, geometry: aboutOrigin(shapes, parts), assigned: [], notes: [] };
}

async function opened(bytes: Uint8Array, source: string): Promise<Document> {
  const io = new WebIO({ credentials: 'omit' });
  try {
    const isBinary = bytes[0] === 0x67;
    if (isBinary) return await io.readBinary(bytes);
    const json = JSON.parse(new TextDecoder().decode(bytes)) as {
      buffers?: { uri?: string }[];
      images?: unknown[];
      textures?: unknown[];
    };
    if ((json.buffers ?? []).some((b) => b.uri !== undefined && !b.uri.startsWith('data:')))
      throw new UnreadableFile(
        `${source} keeps its bodies in another file. Save it as GLB, or as glTF with everything in it.`,
      );
    const resources: Record<string, Uint8Array> = {};
    for (const b of json.buffers ?? [])
      if (b.uri) resources[b.uri] = Uint8Array.from(atob(b.uri.slice(b.uri.indexOf(',') + 1)), (c) => c.charCodeAt(0));
    return await io.readJSON({ json: json as never, resources: resources as never });
  } catch (error) {
    if (error instanceof UnreadableFile) throw error;
    throw new UnreadableFile(
      `${source} could not be read as glTF (${error instanceof Error ? error.message.slice(0, 150) : 'unknown reason'}).`,
    );
  }
}

const word = (value: unknown): string => (value === undefined || value === null ? '' : String(value));

/** The name of what holds a node. */
const aboveOf = (node: Node): string => {
  const up = node.getParentNode();
  return up && !up.getMesh() ? up.getName() : '';
};

const triangleParts = (mesh: Mesh): Primitive[] =>
  mesh.listPrimitives().filter((p) => p.getMode() === Primitive.Mode.TRIANGLES && p.getAttribute('POSITION') !== null);

function shapeIn(primitive: Primitive): Shape {
  const position = primitive.getAttribute('POSITION')!;
  const corners = new Float32Array(position.getCount() * 3);
  const at: number[] = [];
  for (let k = 0; k < position.getCount(); k++) corners.set(position.getElement(k, at).slice(0, 3), k * 3);
  const indices = primitive.getIndices()?.getArray();
  const triangles = Uint32Array.from(indices ?? { length: corners.length / 3 }, (v, k) => (indices ? Number(v) : k));
  if (triangles.some((t) => t >= corners.length / 3))
    return { ...boxShape([0, 0, 0], [0, 0, 0]), edges: new Uint32Array() };
  return { corners, triangles, edges: edgesOf(corners, triangles) };
}

/** Where a node stands in the world, with z up: (x, y, z) of the file becomes (x, −z, y). */
function worldOf(node: Node): Float64Array {
  const m = node.getWorldMatrix();
  return Float64Array.from([m[0], -m[2], m[1], m[4], -m[6], m[5], m[8], -m[10], m[9], m[12], -m[14], m[13]]);
}
