import { type Body, type BuildElement, identifierOf } from '@clembo/core';
import { Document, WebIO } from '@gltf-transform/core';

/** How an element is drawn in a file: its colour, and how much of it is seen through. */
export interface FileLook {
  colour: string;
  opacity: number;
}

/**
 * The model on a date as GLB (glTF 2.0): a node for each element that is seen, by its name, with identifier, class,
 * type and storey in its extras. Metres, y up.
 *
 * @param looks null for what is not seen
 */
export async function writeDateGltf(
  elements: readonly BuildElement[],
  body: Body,
  looks: readonly (FileLook | null)[],
): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const scene = document.createScene('model');
  const materials = new Map<string, ReturnType<Document['createMaterial']>>();
  const materialOf = ({ colour, opacity }: FileLook) => {
    const key = `${colour} ${opacity}`;
    const known = materials.get(key);
    if (known) return known;
    const v = Number.parseInt(colour.slice(1), 16);
    const made = document
      .createMaterial(key)
      .setBaseColorFactor([linear(v >> 16), linear((v >> 8) & 255), linear(v & 255), opacity])
      .setMetallicFactor(0)
      .setRoughnessFactor(1)
      .setDoubleSided(true)
      .setAlphaMode(opacity < 1 ? 'BLEND' : 'OPAQUE');
    materials.set(key, made);
    return made;
  };
  elements.forEach((e, i) => {
    const look = looks[i];
    const [from, to] = [body.cornersOf[i]!, body.cornersOf[i + 1]!];
    const [first, last] = [body.trianglesOf[i]!, body.trianglesOf[i + 1]!];
    if (!look || to === from || last === first) return;
    const corners = new Float32Array((to - from) * 3);
    for (let c = from; c < to; c++)
      corners.set([body.corners[c * 3]!, body.corners[c * 3 + 2]!, -body.corners[c * 3 + 1]!], (c - from) * 3);
    const triangles = body.triangles.slice(first, last).map((t) => t - from);
    const primitive = document
      .createPrimitive()
      .setAttribute('POSITION', document.createAccessor().setType('VEC3').setArray(corners).setBuffer(buffer))
      .setIndices(document.createAccessor().setType('SCALAR').setArray(triangles).setBuffer(buffer))
      .setMaterial(materialOf(look));
    const mesh = document.createMesh(e.type || e.class).addPrimitive(primitive);
    const node = document.createNode(e.name || e.class).setMesh(mesh);
    node.setExtras({ identifier: identifierOf(e.ref), class: e.class, type: e.type, storey: e.storey });
    scene.addChild(node);
  });
  document.getRoot().setDefaultScene(scene);
  return new WebIO().writeBinary(document);
}

/** A channel of a colour as it is written, as light (sRGB to linear, IEC 61966-2-1). */
const linear = (byte: number): number => {
  const v = byte / 255;
  return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4;
};
