import { type BuildElement, edgesOf, makeElement, type ModelGeometry, type Shape } from '@clembo/core';
import { list, refId, text } from '../ifc/attributes';
import { UnreadableFile } from '../table/table';
import { classWords } from './classWords';
import { aboutOrigin, checkOnce, cut, LONGEST, MOST_CORNERS, MOST_ELEMENTS, type ReadModel } from './modelParts';

type Line = Record<string, unknown> & { expressID: number };
type Api = InstanceType<typeof import('web-ifc').IfcAPI>;

const LONGEST_FILE = 400 * 1_048_576;

/**
 * Reads an IFC model: elements with types, storeys, properties, quantities and classifications, bodies in metres with
 * z up, and the tasks that are assigned to elements.
 *
 * @throws UnreadableFile
 */
export async function readIfcModel(bytes: Uint8Array, source: string, key: string): Promise<ReadModel> {
  if (bytes.length > LONGEST_FILE)
    throw new UnreadableFile(`${source} is larger than ${LONGEST_FILE / 1_048_576} MB; split the model.`);
  checkWhole(bytes, source);
  const ifc = await import('web-ifc');
  const api = new ifc.IfcAPI();
  await api.Init();
  api.SetLogLevel(ifc.LogLevel.LOG_LEVEL_OFF);
  let id = -1;
  try {
    id = api.OpenModel(bytes, { COORDINATE_TO_ORIGIN: false });
    if (id < 0) throw new Error('its schema is not known');
    return await new Reader(api, id, ifc as unknown as Record<string, unknown>, source, key).read();
  } catch (error) {
    if (error instanceof UnreadableFile) throw error;
    throw new UnreadableFile(
      `${source} could not be read as a building model (${error instanceof Error ? error.message.slice(0, 150) : 'unknown reason'}).`,
    );
  } finally {
    if (id >= 0) api.CloseModel(id);
  }
}

/** A file that ends before its end is not read in part. */
function checkWhole(bytes: Uint8Array, source: string): void {
  const tail = new TextDecoder().decode(bytes.subarray(Math.max(0, bytes.length - 2000)));
  if (!/END-ISO-10303-21\s*;\s*$/.test(tail.replace(/\0+$/, '')))
    throw new UnreadableFile(`${source} ends before it is complete. Have it sent or written again.`);
}

class Reader {
  private readonly lines = new Map<number, Line | null>();
  private readonly notes: string[] = [];
  private readonly names = new Map<number, string>();
  /** Kinds of elements: what is a kind of IfcElement in a version of the standard, and no hole and nothing virtual. */
  private readonly solid = new Set<number>();

  constructor(
    private readonly api: Api,
    private readonly id: number,
    private readonly types: Record<string, unknown>,
    private readonly source: string,
    private readonly key: string,
  ) {
    for (const schema of ['IFC2X3', 'IFC4', 'IFC4X3']) {
      const all = (types[schema] ?? {}) as Record<string, { prototype?: object }>;
      const isKind = (name: string, of: string): boolean => {
        const above = all[of] as unknown as { prototype: object } | undefined;
        return above !== undefined && (name === of || Object.hasOwn(all, name)) && isBelow(all[name], above.prototype);
      };
      for (const name of Object.keys(all)) {
        const code = types[name.toUpperCase()];
        if (typeof code !== 'number') continue;
        this.names.set(code, name);
        if (
          isKind(name, 'IfcElement') &&
          !isKind(name, 'IfcFeatureElementSubtraction') &&
          !isKind(name, 'IfcVirtualElement')
        )
          this.solid.add(code);
      }
    }
  }

  async read(): Promise<ReadModel> {
    const scale = this.units();
    const found = this.elements();
    const at = new Map(found.map((f, i) => [f.line.expressID, i]));
    const elements = found.map(({ line, kind }) =>
      makeElement({
        ref: `${this.key}/${text(line.GlobalId)}`,
        name: cut(text(line.Name), 300),
        class: kind,
        type: cut(text(line.ObjectType), 300),
      }),
    );
    checkOnce(elements, this.source);
    this.storeys(at, elements);
    this.described(at, elements, scale);
    this.classified(at, elements);
    const geometry = this.bodies(at, found);
    return { elements, geometry, assigned: this.assigned(at, elements), notes: this.notes };
  }

  /** Every element but those that are holes. */
  private elements(): { line: Line; kind: string }[] {
    const found: { line: Line; kind: string }[] = [];
    for (const type of this.api.GetIfcEntityList(this.id)) {
      if (!this.solid.has(type)) continue;
      const kind = classWords(this.names.get(type) ?? 'IfcBuildingElementProxy');
      for (const line of this.all(type)) found.push({ line, kind });
      if (found.length > MOST_ELEMENTS)
        throw new UnreadableFile(
          `${this.source} has more than ${MOST_ELEMENTS} elements; split the model before it is taken in.`,
        );
    }
    return found.sort((a, b) => a.line.expressID - b.line.expressID);
  }

  /** How many metres, square and cubic metres the file's units are; one where it names none. */
  private units(): Record<'length' | 'area' | 'volume', number> {
    const scale = { length: 1, area: 1, volume: 1 };
    const of = { LENGTHUNIT: 'length', AREAUNIT: 'area', VOLUMEUNIT: 'volume' } as const;
    const power = { length: 1, area: 2, volume: 3 };
    for (const assignment of this.named('IFCUNITASSIGNMENT'))
      for (const ref of list(assignment.Units)) {
        const unit = this.line(ref);
        const what = of[text(unit?.UnitType) as keyof typeof of];
        if (!unit || !what) continue;
        if (text(unit.Name) === 'METRE' || text(unit.Name).endsWith('_METRE'))
          scale[what] = (PREFIXES[text(unit.Prefix)] ?? 1) ** power[what];
        else {
          const factor = Number(text(this.line(unit.ConversionFactor)?.ValueComponent));
          if (Number.isFinite(factor) && factor > 0) scale[what] = factor;
        }
      }
    return scale;
  }

  private storeys(at: ReadonlyMap<number, number>, elements: BuildElement[]): void {
    const whole = new Map<number, number>();
    for (const rel of this.named('IFCRELAGGREGATES'))
      for (const part of list(rel.RelatedObjects)) whole.set(refId(part) ?? -1, refId(rel.RelatingObject) ?? -1);
    const in_ = new Map<number, number>();
    for (const rel of this.named('IFCRELCONTAINEDINSPATIALSTRUCTURE'))
      for (const e of list(rel.RelatedElements)) in_.set(refId(e) ?? -1, refId(rel.RelatingStructure) ?? -1);
    const filled = new Map<number, number>();
    const opened = new Map<number, number>();
    for (const rel of this.named('IFCRELFILLSELEMENT'))
      filled.set(refId(rel.RelatedBuildingElement) ?? -1, refId(rel.RelatingOpeningElement) ?? -1);
    for (const rel of this.named('IFCRELVOIDSELEMENT'))
      opened.set(refId(rel.RelatedOpeningElement) ?? -1, refId(rel.RelatingBuildingElement) ?? -1);
    const storeyType = this.types.IFCBUILDINGSTOREY;
    for (const [express, i] of at) {
      // Up from part to whole, from what fills a hole to what has it, and from place to place.
      let [here, steps] = [express as number | undefined, 0];
      while (here !== undefined && here >= 0 && steps++ < 50) {
        const line = this.line(here);
        if (line?.type === storeyType) {
          elements[i]!.storey = cut(text(line?.LongName) || text(line?.Name), 200);
          break;
        }
        const through = filled.get(here);
        here = in_.get(here) ?? whole.get(here) ?? (through === undefined ? undefined : opened.get(through));
      }
    }
  }

  /** Types, properties and quantities. */
  private described(
    at: ReadonlyMap<number, number>,
    elements: BuildElement[],
    scale: Record<'length' | 'area' | 'volume', number>,
  ): void {
    const put = (e: BuildElement, definition: Line | null) => {
      if (!definition) return;
      const set = text(definition.Name);
      for (const ref of list(definition.HasProperties)) {
        const p = this.line(ref);
        if (!p) continue;
        const value =
          p.NominalValue !== undefined
            ? text(p.NominalValue)
            : list(p.EnumerationValues ?? p.ListValues)
                .map(text)
                .join(', ');
        if (value !== '') e.properties[cut(`${set}: ${text(p.Name)}`, LONGEST.name)] = cut(value, LONGEST.value);
      }
      for (const ref of list(definition.Quantities)) {
        const q = this.line(ref);
        if (!q) continue;
        for (const measure of ['length', 'area', 'volume'] as const) {
          const raw = q[`${measure[0]!.toUpperCase()}${measure.slice(1)}Value`];
          if (raw === undefined || raw === null) continue;
          const amount = Number(text(raw)) * scale[measure];
          if (!Number.isFinite(amount) || amount < 0 || amount > 1e12) continue;
          const name = text(q.Name);
          const rank = rankOf(measure, name);
          // A base quantity is the element's own length, area or volume; any other is a property.
          if (rank === OTHER)
            e.properties[cut(`${set}: ${name}`, LONGEST.name)] = String(Number(amount.toPrecision(12)));
          if (rank < (ranks.get(e)?.[measure] ?? 99)) {
            e[measure] = Number(amount.toPrecision(12));
            ranks.set(e, { ...ranks.get(e), [measure]: rank });
          }
        }
      }
    };
    const ranks = new Map<BuildElement, Partial<Record<string, number>>>();
    for (const rel of this.named('IFCRELDEFINESBYTYPE')) {
      const type = this.line(rel.RelatingType);
      for (const ref of list(rel.RelatedObjects)) {
        const i = at.get(refId(ref) ?? -1);
        if (i === undefined || !type) continue;
        elements[i]!.type = cut(text(type.Name), 300) || elements[i]!.type;
        for (const set of list(type.HasPropertySets)) put(elements[i]!, this.line(set));
      }
    }
    for (const rel of this.named('IFCRELDEFINESBYPROPERTIES')) {
      const definition = this.line(rel.RelatingPropertyDefinition);
      for (const ref of list(rel.RelatedObjects)) {
        const i = at.get(refId(ref) ?? -1);
        if (i !== undefined) put(elements[i]!, definition);
      }
    }
  }

  private classified(at: ReadonlyMap<number, number>, elements: BuildElement[]): void {
    for (const rel of this.named('IFCRELASSOCIATESCLASSIFICATION')) {
      const reference = this.line(rel.RelatingClassification);
      if (!reference) continue;
      const code = text(reference.Identification) || text(reference.ItemReference);
      const words = cut([code, text(reference.Name)].filter(Boolean).join(' '), 200);
      if (words === '') continue;
      for (const ref of list(rel.RelatedObjects)) {
        const i = at.get(refId(ref) ?? -1);
        if (i !== undefined && elements[i]!.classifications.length < 50) elements[i]!.classifications.push(words);
      }
    }
  }

  private assigned(at: ReadonlyMap<number, number>, elements: BuildElement[]): ReadModel['assigned'] {
    const by = new Map<number, string[]>();
    for (const rel of this.named('IFCRELASSIGNSTOPRODUCT')) {
      const i = at.get(refId(rel.RelatingProduct) ?? -1);
      if (i === undefined) continue;
      for (const task of list(rel.RelatedObjects)) {
        const t = refId(task) ?? -1;
        const own = by.get(t);
        if (own) own.push(elements[i]!.ref);
        else by.set(t, [elements[i]!.ref]);
      }
    }
    for (const rel of this.named('IFCRELASSIGNSTOPROCESS')) {
      const t = refId(rel.RelatingProcess) ?? -1;
      const own = list(rel.RelatedObjects).flatMap((r) => {
        const i = at.get(refId(r) ?? -1);
        return i === undefined ? [] : [elements[i]!.ref];
      });
      if (own.length > 0) by.set(t, [...(by.get(t) ?? []), ...own]);
    }
    return [...by].flatMap(([task, refs]) => {
      const line = this.line(task);
      if (!line) return [];
      const activity = text(line.Identification) || text(line.TaskId) || text(line.GlobalId);
      return [{ activity, name: text(line.Name), elements: [...new Set(refs)] }];
    });
  }

  /** Bodies: what elements share is kept once. Parts of an element that is only a whole of others are its parts' own. */
  private bodies(at: ReadonlyMap<number, number>, found: { line: Line }[]): ModelGeometry {
    const shapes: Shape[] = [];
    const shapeOf = new Map<number, number>();
    const raw: { element: number; shape: number; m: number[] }[] = [];
    let corners = 0;
    const wanted = found.map((f) => f.line.expressID);
    if (wanted.length > 0)
      this.api.StreamMeshes(this.id, wanted, (mesh) => {
        const element = at.get(mesh.expressID);
        const placed = mesh.geometries;
        for (let k = 0; k < placed.size(); k++) {
          const g = placed.get(k);
          if (element === undefined) continue;
          let shape = shapeOf.get(g.geometryExpressID);
          if (shape === undefined) {
            const geometry = this.api.GetGeometry(this.id, g.geometryExpressID);
            // Six numbers a corner: its place and the direction that it faces.
            const vertices = this.api.GetVertexArray(geometry.GetVertexData(), geometry.GetVertexDataSize());
            const own = new Float32Array((vertices.length / 6) * 3);
            for (let v = 0; v < vertices.length / 6; v++)
              own.set([vertices[v * 6]!, vertices[v * 6 + 1]!, vertices[v * 6 + 2]!], v * 3);
            const triangles = new Uint32Array(
              this.api.GetIndexArray(geometry.GetIndexData(), geometry.GetIndexDataSize()),
            );
            shape = shapes.length;
            shapes.push({ corners: own, triangles, edges: edgesOf(own, triangles) });
            shapeOf.set(g.geometryExpressID, shape);
            geometry.delete();
          }
          corners += shapes[shape]!.corners.length / 3;
          if (corners > MOST_CORNERS)
            throw new UnreadableFile(
              `${this.source} is drawn with more than ${MOST_CORNERS} corners. Save it with less detail, or split it.`,
            );
          raw.push({ element, shape, m: g.flatTransformation });
        }
      });
    // From y up to z up: (x, y, z) becomes (x, −z, y).
    const parts = raw.map(({ element, shape, m }) => ({
      element,
      shape,
      place: Float64Array.from([
        m[0]!,
        -m[2]!,
        m[1]!,
        m[4]!,
        -m[6]!,
        m[5]!,
        m[8]!,
        -m[10]!,
        m[9]!,
        m[12]!,
        -m[14]!,
        m[13]!,
      ]),
    }));
    return aboutOrigin(shapes, parts);
  }

  private all(type: number): Line[] {
    const ids = this.api.GetLineIDsWithType(this.id, type);
    const found: Line[] = [];
    for (let k = 0; k < ids.size(); k++) {
      const line = this.line(ids.get(k));
      if (!line) throw new UnreadableFile(`${this.source}: the line #${ids.get(k)} is damaged. Have it written again.`);
      found.push(line);
    }
    return found;
  }

  private named(name: string): Line[] {
    const type = this.types[name];
    return typeof type === 'number' ? this.all(type) : [];
  }

  private line(ref: unknown): Line | null {
    const at = typeof ref === 'number' ? ref : refId(ref);
    if (at === null || at < 0) return null;
    const known = this.lines.get(at);
    if (known !== undefined) return known;
    let line: Line | null = null;
    try {
      line = this.api.GetLine(this.id, at) as Line;
    } catch {}
    this.lines.set(at, line);
    return line;
  }
}

const isBelow = (kind: { prototype?: object } | undefined, above: object): boolean =>
  kind?.prototype !== undefined &&
  (kind.prototype === above || Object.prototype.isPrototypeOf.call(above, kind.prototype));

const PREFIXES: Record<string, number> = { MILLI: 1e-3, CENTI: 1e-2, DECI: 1e-1, KILO: 1e3, MICRO: 1e-6 };

/** Quantities of these names come first: the standard's base quantities. */
const FIRST = {
  length: ['length', 'height', 'width', 'perimeter'],
  area: ['netsidearea', 'netarea', 'grosssidearea', 'grossarea', 'area', 'outersurfacearea', 'crosssectionarea'],
  volume: ['netvolume', 'grossvolume', 'volume'],
};
/** The rank of quantities that are none of these. */
const OTHER = 50;
function rankOf(measure: 'length' | 'area' | 'volume', name: string): number {
  const at = FIRST[measure].indexOf(name.toLowerCase().replace(/[^a-z]/g, ''));
  return at < 0 ? OTHER : at;
}
