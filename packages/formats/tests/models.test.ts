import { describe, expect, test } from '@jest/globals';
import {
  applyCommand,
  bodyOf,
  dayFromCivil,
  endOfDay,
  FIVE_DAY,
  makeActivity,
  makePlan,
  schedulePlan,
  startOfDay,
} from '@clembo/core';
import { WebIO } from '@gltf-transform/core';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { stationModel, stationThings } from '../../../demo/station';
import { modelKey, readModel, UnreadableFile, writeMatchesCsv, writePlanModel } from '../src/index';
import { stepFile } from '../src/ifc/step';
import { writeDateGltf } from '../src/out/dateGltf';

/** KIT/IAI (Karlsruhe Institute of Technology), free to redistribute with attribution; in Debian's assimp-testmodels. */
const HOUSE = '/usr/share/assimp/models/IFC/AC14-FZK-Haus.ifc';
const bytesOf = (text: string) => new TextEncoder().encode(text);
const read = (text: string, name = 'model.ifc') => readModel(bytesOf(text), name, 'm');
const bodyIn = ({ elements, geometry }: Awaited<ReturnType<typeof readModel>>) =>
  bodyOf([{ count: elements.length, geometry }]);
const count = (list: readonly string[]) => {
  const by: Record<string, number> = {};
  for (const x of list) by[x] = (by[x] ?? 0) + 1;
  return by;
};

describe('a public model of a house (IFC 2x3)', () => {
  const house = readModel(new Uint8Array(readFileSync(HOUSE)), 'house.ifc', 'house');

  test('its elements are those that its publisher counts', async () => {
    const { elements, notes } = await house;
    const by = count(elements.map((e) => e.class));
    // Source: KIT/IAI, as the package that ships it says: 13 walls, 4 slabs, 5 doors, 11 windows, 51 beams, 2 storeys.
    expect(by).toMatchObject({ Wall: 13, Slab: 4, Door: 5, Window: 11, Beam: 51 });
    expect(new Set(elements.map((e) => e.storey).filter(Boolean)).size).toBe(2);
    expect(Object.keys(by).some((c) => /opening|space|storey|annotation/i.test(c))).toBe(false);
    expect(notes).toEqual([]);
    expect(elements.find((e) => e.name === 'Wand-Ext-ERDG-1')).toMatchObject({
      class: 'Wall',
      type: 'Leichtbeton 300',
    });
    expect(new Set(elements.map((e) => e.ref)).size).toBe(elements.length);
  });

  test('counts by class and storey are those of the text of the file', async () => {
    const { elements } = await house;
    // A second reading, of nothing but lines: which entities there are of a class (ISO 10303-21).
    const text = readFileSync(HOUSE, 'latin1');
    const lines = (name: string) => text.match(new RegExp(`=\\s*${name}\\(`, 'g'))?.length ?? 0;
    const by = count(elements.map((e) => e.class));
    expect(by.Wall).toBe(lines('IFCWALLSTANDARDCASE') + lines('IFCWALL'));
    expect(by.Window).toBe(lines('IFCWINDOW'));
    expect(by.Railing).toBe(lines('IFCRAILING'));
    expect(by['Furnishing element']).toBe(lines('IFCFURNISHINGELEMENT'));
  });

  test('boxes agree with another reader within a centimetre', async () => {
    const model = await house;
    const file = join(mkdtempSync(join(tmpdir(), 'clembo-house-')), 'house.glb');
    execFileSync('assimp', ['export', HOUSE, file, '-fglb2'], { stdio: 'ignore' });
    const document = await new WebIO().readBinary(new Uint8Array(readFileSync(file)));
    const boxes = new Map<string, number[]>();
    const put = (node: ReturnType<typeof document.createNode>, ids: string[]): void => {
      // Nodes are named by class, name and identifier; what is nameless belongs to what holds it.
      const own = /^Ifc\w*_.*_([0-9A-Za-z_$]{22})$/s.exec(node.getName())?.[1];
      const isHole = /^IfcOpening/.test(node.getName());
      const list = isHole ? [] : own ? [own] : ids;
      const m = node.getWorldMatrix();
      for (const p of node.getMesh()?.listPrimitives() ?? []) {
        const a = p.getAttribute('POSITION')!;
        for (let k = 0; k < a.getCount(); k++) {
          const [x, y, z] = a.getElement(k, [] as number[]) as [number, number, number];
          const at = [0, 1, 2].map((r) => m[r]! * x + m[r + 4]! * y + m[r + 8]! * z + m[r + 12]!);
          const place = [at[0]!, -at[2]!, at[1]!];
          for (const id of list) {
            const box = boxes.get(id) ?? [1e9, 1e9, 1e9, -1e9, -1e9, -1e9];
            place.forEach((v, r) => {
              box[r] = Math.min(box[r]!, v);
              box[r + 3] = Math.max(box[r + 3]!, v);
            });
            boxes.set(id, box);
          }
        }
      }
      for (const child of node.listChildren()) put(child, list);
    };
    for (const node of document.getRoot().getDefaultScene()!.listChildren()) put(node, []);
    const body = bodyIn(model);
    const kinds = ['Wall', 'Slab', 'Beam', 'Column'];
    let compared = 0;
    model.elements.forEach((e, i) => {
      const other = boxes.get(e.ref.slice('house/'.length));
      if (!kinds.includes(e.class) || !other) return;
      compared++;
      for (let k = 0; k < 6; k++)
        if (Math.abs(body.boxes[i * 6 + k]! + model.geometry.origin[k % 3]! - other[k]!) > 0.01)
          throw new Error(`${e.class} ${e.name}: ${[...body.boxes.slice(i * 6, i * 6 + 6)]} is not ${other}`);
    });
    expect(compared).toBeGreaterThan(60);
  });
});

describe('the model of the demo (IFC 4)', () => {
  test('comes in with every box where it was put, its codes, sizes and classification', async () => {
    const model = await readModel(bytesOf(stationModel()), 'station.ifc', 'station');
    const things = stationThings();
    expect(model.elements.length).toBe(things.length);
    const body = bodyIn(model);
    const at = new Map(model.elements.map((e, i) => [`${e.name}|${e.type}`, i]));
    for (const t of things.filter((x) => !x.up && !x.along)) {
      const i = at.get(`${t.name}|${t.type}`)!;
      const e = model.elements[i]!;
      for (let k = 0; k < 3; k++) {
        const low = body.boxes[i * 6 + k]! + model.geometry.origin[k]!;
        // A round one stands in its box.
        expect(Math.abs(low - t.at[k]!)).toBeLessThan(t.round ? 0.03 : 0.001);
      }
      expect([e.storey, e.properties['Work: Code'] ?? null]).toEqual([t.storey, t.work]);
      const ground = t.round ? (Math.PI * t.size[0] ** 2) / 4 : t.size[0] * t.size[1];
      expect(e.volume!).toBeCloseTo(ground * t.size[2], 4);
      expect(e.classifications).toEqual(t.classification ? [t.classification] : []);
    }
    // What is the same is kept once.
    expect(model.geometry.shapes.length).toBeLessThan(things.length / 4);
  });
});

const HEAD = [
  "#1=IFCPROJECT('0000000000000000000001',$,'P',$,$,$,$,(#3),#2);",
  '#2=IFCUNITASSIGNMENT((#4,#5));',
  "#3=IFCGEOMETRICREPRESENTATIONCONTEXT($,'Model',3,1.E-05,#6,$);",
  '#4=IFCSIUNIT(*,.LENGTHUNIT.,.MILLI.,.METRE.);',
  '#5=IFCSIUNIT(*,.VOLUMEUNIT.,$,.CUBIC_METRE.);',
  '#6=IFCAXIS2PLACEMENT3D(#7,$,$);',
  '#7=IFCCARTESIANPOINT((0.,0.,0.));',
];
const wall = (id: number, guid: string, name: string, depth = '3000.', point = '#7') => [
  `#${id}=IFCWALL('${guid}',$,'${name}',$,$,#${id + 1},#${id + 3},'T1',$);`,
  `#${id + 1}=IFCLOCALPLACEMENT($,#${id + 2});`,
  `#${id + 2}=IFCAXIS2PLACEMENT3D(${point},$,$);`,
  `#${id + 3}=IFCPRODUCTDEFINITIONSHAPE($,$,(#${id + 4}));`,
  `#${id + 4}=IFCSHAPEREPRESENTATION(#3,'Body','SweptSolid',(#${id + 5}));`,
  `#${id + 5}=IFCEXTRUDEDAREASOLID(#${id + 6},#6,#${id + 7},${depth});`,
  `#${id + 6}=IFCRECTANGLEPROFILEDEF(.AREA.,$,$,4000.,300.);`,
  `#${id + 7}=IFCDIRECTION((0.,0.,1.));`,
];
const file = (...lines: string[]) => stepFile('hand-written', '2026-09-01T00:00:00', lines);

describe('a hand-written model (IFC 4) with tasks', () => {
  const lines = [
    ...HEAD,
    ...wall(20, '1000000000000000000001', 'North wall'),
    ...wall(40, '1000000000000000000002', 'South wall', '2500.', '#60'),
    '#60=IFCCARTESIANPOINT((0.,9000.,0.));',
    "#70=IFCTASK('2000000000000000000001',$,'Build the walls',$,$,'W1',$,$,$,.F.,$,#71,.CONSTRUCTION.);",
    "#71=IFCTASKTIME($,$,$,.WORKTIME.,'P5D','2026-09-07T08:00:00','2026-09-11T17:00:00',$,$,$,$,$,$,$,$,$,$,$,$,$);",
    "#72=IFCTASK('2000000000000000000002',$,'Plaster',$,$,'W2',$,$,$,.F.,$,$,.CONSTRUCTION.);",
    "#73=IFCRELASSIGNSTOPRODUCT('2000000000000000000003',$,$,$,(#70),$,#20);",
    "#74=IFCRELASSIGNSTOPRODUCT('2000000000000000000004',$,$,$,(#70,#72),$,#40);",
    "#80=IFCELEMENTQUANTITY('2000000000000000000005',$,'Qto_WallBaseQuantities',$,$,(#81,#82,#83));",
    "#81=IFCQUANTITYLENGTH('Length',$,$,4000.,$);",
    "#82=IFCQUANTITYVOLUME('GrossVolume',$,$,3.7,$);",
    "#83=IFCQUANTITYVOLUME('NetVolume',$,$,3.6,$);",
    "#84=IFCRELDEFINESBYPROPERTIES('2000000000000000000006',$,$,$,(#20),#80);",
  ];

  test('says which task works on what, in metres whatever its unit', async () => {
    const model = await read(file(...lines));
    expect(model.assigned).toEqual([
      { activity: 'W1', name: 'Build the walls', elements: ['m/1000000000000000000001', 'm/1000000000000000000002'] },
      { activity: 'W2', name: 'Plaster', elements: ['m/1000000000000000000002'] },
    ]);
    const [north, south] = model.elements;
    expect([north!.length, north!.volume, north!.properties]).toEqual([4, 3.6, {}]);
    expect(south!.length).toBeNull();
    const { boxes } = bodyIn(model);
    const box = (i: number) =>
      Array.from(
        boxes.slice(i * 6, i * 6 + 6),
        (v, k) => Math.round((v + model.geometry.origin[k % 3]!) * 1000) / 1000 + 0,
      );
    expect(box(0)).toEqual([-2, -0.15, 0, 2, 0.15, 3]);
    expect(box(1)).toEqual([-2, 8.85, 0, 2, 9.15, 2.5]);
  });

  test('what is written out as tasks with elements comes back as matches', async () => {
    const plan = makePlan({
      name: 'Out',
      calendars: [FIVE_DAY],
      calendar: FIVE_DAY.id,
      activities: [makeActivity({ ref: 'A1', name: 'Walls' }), makeActivity({ ref: 'A2', name: 'Clear' })],
      matches: [
        { activity: 'A1', effect: 'builds', elements: ['m/1000000000000000000001', 'm/Block 7'] },
        { activity: 'A2', effect: 'removes', elements: ['m/1000000000000000000002'] },
      ],
    });
    const text = writePlanModel(plan, 0);
    const back = await read(text);
    expect(back.assigned.map((a) => [a.activity, a.elements.length])).toEqual([
      ['A1', 2],
      ['A2', 1],
    ]);
    expect(back.assigned[0]!.elements).toContain('m/1000000000000000000001');
    expect(text).toMatch(/IFCTASK\([^;]*'A2'[^;]*\.DEMOLITION\./);
  });

  test.each([
    ['ends before it is complete', file(...lines).slice(0, -60), /ends before it is complete/],
    [
      'names an identifier twice',
      file(...HEAD, ...wall(20, 'A'.repeat(22), 'One'), ...wall(40, 'A'.repeat(22), 'Two')),
      /two elements have the identifier A{22}/,
    ],
    ['has no elements', file(...HEAD), /no elements that could be matched/],
    [
      'has no schema',
      file(...lines).replace("FILE_SCHEMA(('IFC4'))", "FILE_SCHEMA(('NONE'))"),
      /could not be read as a building model|no elements/,
    ],
  ])('one that %s is refused in words', async (_, text, words) => {
    const refused = read(text);
    await expect(refused).rejects.toThrow(words);
    await expect(refused).rejects.toThrow(UnreadableFile);
  });

  test('placements that lead round in a circle, and faults of a body, do not end the reader', async () => {
    const circle = file(
      ...HEAD,
      ...wall(20, '1000000000000000000001', 'Round').map((l) =>
        l.startsWith('#21=') ? '#21=IFCLOCALPLACEMENT(#21,#22);' : l,
      ),
      ...wall(40, '1000000000000000000002', 'Straight'),
    );
    const model = await read(circle).catch((e: unknown) => e);
    if (!(model instanceof UnreadableFile)) expect((model as { elements: object[] }).elements.length).toBe(2);
    const broken = await read(
      file(...HEAD, ...wall(20, '1000000000000000000003', 'Without a profile').filter((l) => !l.startsWith('#26='))),
    );
    expect(broken.elements.length).toBe(1);
    expect(Number.isNaN(bodyIn(broken).boxes[0]!)).toBe(true);
  });
});

describe('blocks from a table', () => {
  const table =
    'No;Name;X;Y;Z;Width;Depth;Height;Floor;Turn;Trade\nB1;Base;0;0;0;10;5;0,5;Ground;0;Concrete\nB2;Turned;20;0;0,5;4;2;3;Ground;90;Steel\nB3;Odd;1;2;3;four;1;1;Upper;;\nB4;Flat;1;2;3;4;1;0;Upper;;\n';

  test('have their places, sizes and volumes; what cannot be read is said', async () => {
    const model = await read(table, 'blocks.csv');
    const { boxes } = bodyIn(model);
    const box = (i: number) =>
      Array.from(
        boxes.slice(i * 6, i * 6 + 6),
        (v, k) => Math.round((v + model.geometry.origin[k % 3]!) * 1000) / 1000 + 0,
      );
    expect(model.elements.map((e) => e.ref)).toEqual(['m/B1', 'm/B2', 'm/B3', 'm/B4']);
    expect([box(0), box(1)]).toEqual([
      [0, 0, 0, 10, 5, 0.5],
      [18, 0, 0.5, 20, 4, 3.5],
    ]);
    expect(model.elements[0]).toMatchObject({ volume: 25, storey: 'Ground', properties: { Trade: 'Concrete' } });
    expect(model.elements[2]!.volume).toBeNull();
    expect(model.notes).toEqual([
      'Row 4, Odd: “four” under Width is no number; it has no body.',
      'Row 5, Flat: a size is not more than nothing; it has no body.',
    ]);
  });

  test('a table that is none of blocks says which columns it lacks', async () => {
    await expect(read('Name,Start,Finish,A,B,C\nx,1,2,3,4,5\n', 'plan.csv')).rejects.toThrow(
      'plan.csv is no model, and no table of blocks: it has no column “x”, “y”, “width”, “depth”, “height”.',
    );
  });
});

describe('glTF', () => {
  const station = readModel(bytesOf(stationModel()), 'station.ifc', 'station');

  test('the model on a date is valid by the validator of its makers, and comes back with its elements', async () => {
    const { elements, geometry } = await station;
    const body = bodyOf([{ count: elements.length, geometry }]);
    const looks = elements.map((_, i) =>
      i % 3 === 0 ? null : { colour: i % 2 ? '#DAD5CA' : '#79519E', opacity: i % 5 ? 1 : 0.4 },
    );
    const bytes = await writeDateGltf(elements, body, looks);
    const validator = createRequire(import.meta.url)('gltf-validator') as {
      validateBytes(
        bytes: Uint8Array,
      ): Promise<{ issues: { numErrors: number; numWarnings: number; messages: object[] } }>;
    };
    const { issues } = await validator.validateBytes(bytes);
    expect([issues.numErrors, issues.numWarnings, issues.messages.slice(0, 3)]).toEqual([0, 0, []]);
    const back = await readModel(bytes, 'day.glb', 'day');
    expect(back.elements.length).toBe(looks.filter(Boolean).length);
    const mine = bodyOf([{ count: back.elements.length, geometry: back.geometry }]);
    const at = new Map(elements.map((e, i) => [e.ref.slice('station/'.length), i]));
    back.elements.forEach((e, k) => {
      const i = at.get(e.ref.slice('day/'.length))!;
      expect([e.name, e.class, e.storey]).toEqual([elements[i]!.name, elements[i]!.class, elements[i]!.storey]);
      for (let c = 0; c < 6; c++)
        expect(mine.boxes[k * 6 + c]! + back.geometry.origin[c % 3]!).toBeCloseTo(body.boxes[i * 6 + c]!, 3);
    });
  });

  test('what is cut, points at other files, or has places that are no numbers is refused', async () => {
    const { elements, geometry } = await station;
    const body = bodyOf([{ count: elements.length, geometry }]);
    const bytes = await writeDateGltf(
      elements.slice(0, 3),
      body,
      elements.slice(0, 3).map(() => ({ colour: '#DAD5CA', opacity: 1 })),
    );
    await expect(readModel(bytes.slice(0, bytes.length / 2), 'half.glb', 'm')).rejects.toThrow(UnreadableFile);
    const away = JSON.stringify({
      asset: { version: '2.0' },
      buffers: [{ uri: 'http://127.0.0.1/x.bin', byteLength: 4 }],
    });
    await expect(read(away, 'away.gltf')).rejects.toThrow('keeps its bodies in another file');
    const corners = new Float32Array([0, 0, 0, 1, 0, 0, Number.NaN, 1, 0]);
    const data = Buffer.from(corners.buffer).toString('base64');
    const odd = JSON.stringify({
      asset: { version: '2.0' },
      scenes: [{ nodes: [0] }],
      nodes: [{ name: 'Odd', mesh: 0 }],
      meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
      accessors: [{ bufferView: 0, componentType: 5126, count: 3, type: 'VEC3' }],
      bufferViews: [{ buffer: 0, byteLength: 36 }],
      buffers: [{ uri: `data:application/octet-stream;base64,${data}`, byteLength: 36 }],
    });
    await expect(read(odd, 'odd.gltf')).rejects.toThrow('the body of “Odd” has corners that are no numbers');
    const many = JSON.stringify({
      asset: { version: '2.0' },
      meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
      nodes: [{ mesh: 0 }],
      accessors: [{ componentType: 5126, count: 2_000_000_000, type: 'VEC3' }],
    });
    await expect(read(many, 'many.gltf')).rejects.toThrow(UnreadableFile);
  });
});

test('matches as a table: a row for each element, also of those that are gone', async () => {
  const { elements } = await readModel(bytesOf(stationModel()), 'station.ifc', 'station');
  const first = dayFromCivil(2026, 9, 1);
  const plan = makePlan({
    name: 'P',
    calendars: [FIVE_DAY],
    calendar: FIVE_DAY.id,
    activities: [
      makeActivity({ ref: 'A', name: '=Walls, "all"', start: startOfDay(first), finish: endOfDay(first + 3) }),
    ],
  });
  const { plan: matched } = applyCommand(plan, {
    do: 'matchElements',
    match: { activity: 'A', effect: 'builds', elements: [elements[0]!.ref, 'station/gone'] },
  });
  const rows = byPython(writeMatchesCsv(matched, schedulePlan(matched), elements));
  expect(rows.map((r) => [r.Activity, r.Start, r.Finish, r.Effect, r.Model, r.Identifier])).toEqual(
    [elements[0]!.ref.slice('station/'.length), 'gone']
      .sort()
      .map((id) => ['A', '2026-09-01', '2026-09-04', 'builds', 'station', id]),
  );
  expect(rows[0]!['Activity name']).toBe(`'=Walls, "all"`);
});

/** Rows of a table as Python's csv reads them. */
function byPython(csv: string): Record<string, string>[] {
  const program =
    'import csv,io,json,sys; print(json.dumps(list(csv.DictReader(io.StringIO(sys.stdin.buffer.read().decode("utf-8-sig"), newline="")))))';
  return JSON.parse(execFileSync('python3', ['-c', program], { input: csv, encoding: 'utf8' })) as Record<
    string,
    string
  >[];
}

test('keys of models are plain words', () => {
  expect(modelKey('Lifeboat station & section 8.ifc')).toBe('lifeboat-station-section-8');
  expect(modelKey('.ifc')).toBe('model');
});
