import { globalId, stepFile, stepReal, stepText } from '../packages/formats/src/ifc/step';

/**
 * A model of the lifeboat station at Saltmere and of the last stretch of the wall beside it, as a building model of an
 * open standard (ISO 16739-1, IFC4): made up, like everything here. Metres; x runs south along the shore, y inland,
 * z up. Elements carry the code of the work that they belong to, but for a few that nobody has thought of.
 */
export const STATION_MODEL = 'Lifeboat station and section 8.ifc';

interface Thing {
  kind: string;
  name: string;
  type: string;
  storey: Storey;
  /** Reference of the activity that builds it; null for what nobody has planned. */
  work: string | null;
  /** Least corner of a box, its size, and the direction of its local x and z where they are not those of the world. */
  at: [number, number, number];
  size: [number, number, number];
  along?: [number, number, number];
  up?: [number, number, number];
  round?: boolean;
  classification?: string;
}

const STOREYS = { Foundations: -1, 'Ground floor': 0, 'Upper floor': 3.4, Roof: 6.8, Slipway: -2, 'Sea wall': 0 };
type Storey = keyof typeof STOREYS;

/** Boat hall 16 × 26 m, six bays; crew wing 10 × 14 m beside it, two storeys. */
const HALL = { x: 0, y: 0, wide: 16, deep: 26, bays: 6, eaves: 7.2, ridge: 9.6 };
const WING = { x: 16.4, y: 6, wide: 10, deep: 14, high: 6.8 };

export function stationThings(): Thing[] {
  const things: Thing[] = [];
  const add = (thing: Thing) => things.push(thing);
  const box = (
    kind: string,
    [name, type]: [string, string],
    storey: Storey,
    work: string | null,
    at: Thing['at'],
    size: Thing['size'],
    more: Partial<Thing> = {},
  ) => add({ kind, name, type, storey, work, at, size, ...more });

  old(box);
  foundations(box);
  slipway(box);
  frame(box);
  envelope(box);
  fitOut(box);
  plant(box);
  temporary(box);
  seaWall(box);
  return things;
}

type Box = (
  kind: string,
  words: [name: string, type: string],
  storey: Storey,
  work: string | null,
  at: Thing['at'],
  size: Thing['size'],
  more?: Partial<Thing>,
) => void;
const steps = (n: number): number[] => Array.from({ length: n }, (_, k) => k);

/** The old boathouse stands where the crew wing will be. */
function old(box: Box): void {
  const type = 'Old boathouse, brick';
  const [x, y] = [18, 9];
  box('IFCSLAB', ['Old floor', type], 'Ground floor', null, [x, y, -0.25], [7, 9, 0.25]);
  box('IFCWALL', ['Old wall, sea side', type], 'Ground floor', null, [x, y, 0], [7, 0.35, 3]);
  box('IFCWALL', ['Old wall, land side', type], 'Ground floor', null, [x, y + 8.65, 0], [7, 0.35, 3]);
  box('IFCWALL', ['Old wall, north', type], 'Ground floor', null, [x, y + 0.35, 0], [0.35, 8.3, 3]);
  box('IFCWALL', ['Old wall, south', type], 'Ground floor', null, [x + 6.65, y + 0.35, 0], [0.35, 8.3, 3]);
  box('IFCROOF', ['Old roof', type], 'Ground floor', null, [x - 0.3, y - 0.3, 3], [7.6, 9.6, 0.3]);
}

function foundations(box: Box): void {
  const pile = { round: true, classification: 'A1020 Special Foundations' };
  for (const i of steps(5))
    for (const j of steps(7))
      box(
        'IFCPILE',
        [`Pile ${i + 1}.${j + 1}`, 'Bored pile 600'],
        'Foundations',
        'L110',
        [0.5 + i * 3.75, 0.5 + j * 4.15, -10],
        [0.6, 0.6, 9],
        pile,
      );
  for (const i of steps(3))
    for (const j of steps(4))
      box(
        'IFCPILE',
        [`Pile W${i + 1}.${j + 1}`, 'Bored pile 450'],
        'Foundations',
        'L110',
        [WING.x + 0.4 + i * 4.4, WING.y + 0.4 + j * 4.3, -8],
        [0.45, 0.45, 7],
        pile,
      );
  const beam = { classification: 'A1010 Standard Foundations' };
  for (const j of steps(7))
    box(
      'IFCBEAM',
      [`Ground beam, line ${j + 1}`, 'Ground beam 600 × 600'],
      'Foundations',
      'L120',
      [0, 0.4 + j * 4.15, -1],
      [16, 0.6, 0.6],
      beam,
    );
  for (const i of [0, 15.4])
    box(
      'IFCBEAM',
      [`Ground beam, side ${i === 0 ? 'north' : 'south'}`, 'Ground beam 600 × 600'],
      'Foundations',
      'L120',
      [i, 0, -1],
      [0.6, 26, 0.6],
      beam,
    );
  for (const j of steps(4))
    box(
      'IFCBEAM',
      [`Ground beam, wing ${j + 1}`, 'Ground beam 450 × 500'],
      'Foundations',
      'L120',
      [WING.x, WING.y + 0.3 + j * 4.3, -0.9],
      [10, 0.45, 0.5],
      beam,
    );
  for (const i of steps(2))
    for (const j of steps(3))
      box(
        'IFCSLAB',
        [`Hall slab ${i + 1}.${j + 1}`, 'Slab 400'],
        'Ground floor',
        'L120',
        [i * 8, j * (26 / 3), -0.4],
        [8, 26 / 3, 0.4],
        { classification: 'A1030 Slab on Grade' },
      );
  for (const j of steps(2))
    box(
      'IFCSLAB',
      [`Wing slab ${j + 1}`, 'Slab 250'],
      'Ground floor',
      'L120',
      [WING.x, WING.y + j * 7, -0.25],
      [10, 7, 0.25],
      { classification: 'A1030 Slab on Grade' },
    );
}

/** Down from the hall's doors into the sea: eleven panels on trestles. */
function slipway(box: Box): void {
  const fall = 1 / 5;
  const tilt = Math.hypot(1, fall);
  for (const k of steps(11)) {
    const [y, z] = [-(k + 1) * 3.2, -(k + 1) * 3.2 * fall - 0.6];
    box(
      'IFCSLAB',
      [`Slipway panel ${k + 1}`, 'Slipway panel 600'],
      'Slipway',
      'L130',
      [4, y, z],
      [8, 3.2 * tilt, 0.6],
      {
        up: [0, -fall / tilt, 1 / tilt],
        classification: 'G2050 Site structures',
      },
    );
    if (k % 2 === 1)
      for (const x of [4.6, 10.8])
        box(
          'IFCCOLUMN',
          [`Trestle ${k + 1}${x < 8 ? ' north' : ' south'}`, 'Trestle 600'],
          'Slipway',
          'L130',
          [x, y + 1, z - 3],
          [0.6, 0.6, 3],
        );
  }
}

function frame(box: Box): void {
  const bay = HALL.deep / HALL.bays;
  const column = { classification: 'B1020 Roof Construction' };
  const rise = (HALL.ridge - HALL.eaves) / (HALL.wide / 2);
  const long = Math.hypot(1, rise);
  for (const j of steps(HALL.bays + 1)) {
    const y = Math.min(j * bay, HALL.deep - 0.3);
    for (const [x, side] of [
      [0, 'north'],
      [HALL.wide - 0.3, 'south'],
    ] as const)
      box(
        'IFCCOLUMN',
        [`Column ${j + 1} ${side}`, 'Column 300'],
        'Ground floor',
        'L140',
        [x, y, 0],
        [0.3, 0.3, HALL.eaves],
        column,
      );
    box(
      'IFCBEAM',
      [`Rafter ${j + 1} north`, 'Rafter 400'],
      'Roof',
      'L140',
      [0, y, HALL.eaves],
      [(HALL.wide / 2) * long, 0.25, 0.4],
      { along: [1 / long, 0, rise / long], up: [-rise / long, 0, 1 / long], ...column },
    );
    box(
      'IFCBEAM',
      [`Rafter ${j + 1} south`, 'Rafter 400'],
      'Roof',
      'L140',
      [HALL.wide / 2, y, HALL.ridge],
      [(HALL.wide / 2) * long, 0.25, 0.4],
      { along: [1 / long, 0, -rise / long], up: [rise / long, 0, 1 / long], ...column },
    );
  }
  for (const j of steps(HALL.bays))
    for (const [x, z, where] of [
      [0, HALL.eaves - 0.3, 'eaves north'],
      [HALL.wide - 0.25, HALL.eaves - 0.3, 'eaves south'],
      [HALL.wide / 2 - 0.12, HALL.ridge - 0.3, 'ridge'],
    ] as const)
      box(
        'IFCBEAM',
        [`Beam ${where} ${j + 1}`, 'Beam 250'],
        'Roof',
        'L140',
        [x, j * bay + 0.3, z],
        [0.25, bay - 0.3, 0.25],
        column,
      );
  for (const i of steps(3))
    for (const j of steps(4))
      box(
        'IFCCOLUMN',
        [`Wing column ${i + 1}.${j + 1}`, 'Column 200'],
        'Ground floor',
        'L140',
        [WING.x + 0.1 + i * 4.8, WING.y + 0.1 + j * 4.5, 0],
        [0.2, 0.2, WING.high],
        { classification: 'B1010 Floor Construction' },
      );
  for (const j of steps(2))
    box(
      'IFCSLAB',
      [`Upper floor ${j + 1}`, 'Deck 200'],
      'Upper floor',
      'L140',
      [WING.x, WING.y + j * 7, 3.2],
      [10, 7, 0.2],
      { classification: 'B1010 Floor Construction' },
    );
}

function envelope(box: Box): void {
  const bay = HALL.deep / HALL.bays;
  const rise = (HALL.ridge - HALL.eaves) / (HALL.wide / 2);
  const long = Math.hypot(1, rise);
  const half = (HALL.wide / 2) * long + 0.3;
  for (const j of steps(HALL.bays)) {
    const y = j * bay;
    box(
      'IFCSLAB',
      [`Roof panel ${j + 1} north`, 'Roof panel, zinc'],
      'Roof',
      'L150',
      [-0.28, y, HALL.eaves + 0.33],
      [half, bay, 0.15],
      { along: [1 / long, 0, rise / long], up: [-rise / long, 0, 1 / long], classification: 'B3010 Roof Coverings' },
    );
    box(
      'IFCSLAB',
      [`Roof panel ${j + 1} south`, 'Roof panel, zinc'],
      'Roof',
      'L150',
      [HALL.wide / 2, y, HALL.ridge + 0.41],
      [half, bay, 0.15],
      { along: [1 / long, 0, -rise / long], up: [rise / long, 0, 1 / long], classification: 'B3010 Roof Coverings' },
    );
    for (const [x, side] of [
      [-0.2, 'north'],
      [HALL.wide, 'south'],
    ] as const) {
      box(
        'IFCWALL',
        [`Cladding ${side} ${j + 1}, lower`, 'Cladding, larch 200'],
        'Ground floor',
        'L150',
        [x, y, 0],
        [0.2, bay, 3.4],
        { classification: 'B2010 Exterior Walls' },
      );
      box(
        'IFCWALL',
        [`Cladding ${side} ${j + 1}, upper`, 'Cladding, larch 200'],
        'Upper floor',
        'L150',
        [x, y, 4.6],
        [0.2, bay, 2.6],
        { classification: 'B2010 Exterior Walls' },
      );
      box(
        'IFCWINDOW',
        [`Hall window ${side} ${j + 1}`, 'Window band 1200'],
        'Upper floor',
        'L150',
        [x + 0.05, y + 0.1, 3.4],
        [0.1, bay - 0.2, 1.2],
        { classification: 'B2020 Exterior Windows' },
      );
    }
  }
  for (const [y, side] of [
    [-0.2, 'sea'],
    [HALL.deep, 'land'],
  ] as const)
    for (const i of steps(4))
      if (side === 'land' || i === 0 || i === 3)
        box(
          'IFCWALL',
          [`Gable ${side} ${i + 1}`, 'Cladding, larch 200'],
          'Ground floor',
          'L150',
          [i * 4, y, 0],
          [4, 0.2, 7.2],
          { classification: 'B2010 Exterior Walls' },
        );
  const floors: [Storey, number][] = [
    ['Ground floor', 0],
    ['Upper floor', 3.4],
  ];
  for (const [storey, z] of floors) {
    for (const i of steps(2))
      for (const [y, side] of [
        [WING.y, 'sea'],
        [WING.y + WING.deep - 0.3, 'land'],
      ] as const)
        box(
          'IFCWALL',
          [`Wing wall ${side} ${i + 1}, ${storey.toLowerCase()}`, 'Wall, timber frame 300'],
          storey,
          'L150',
          [WING.x + i * 5, y, z],
          [5, 0.3, 3.2],
          { classification: 'B2010 Exterior Walls' },
        );
    for (const j of steps(3))
      box(
        'IFCWALL',
        [`Wing wall south ${j + 1}, ${storey.toLowerCase()}`, 'Wall, timber frame 300'],
        storey,
        'L150',
        [WING.x + 9.7, WING.y + 0.3 + j * 4.45, z],
        [0.3, 4.45, 3.2],
        { classification: 'B2010 Exterior Walls' },
      );
    for (const j of steps(3))
      box(
        'IFCWINDOW',
        [`Wing window ${j + 1}, ${storey.toLowerCase()}`, 'Window 1500 × 1200'],
        storey,
        'L150',
        [WING.x + 10, WING.y + 1.6 + j * 4.4, z + 1],
        [0.08, 1.5, 1.2],
        { classification: 'B2020 Exterior Windows' },
      );
    for (const i of steps(2))
      box(
        'IFCWINDOW',
        [`Sea window ${i + 1}, ${storey.toLowerCase()}`, 'Window 2400 × 1500'],
        storey,
        'L150',
        [WING.x + 1.3 + i * 5, WING.y - 0.08, z + 0.9],
        [2.4, 0.08, 1.5],
        { classification: 'B2020 Exterior Windows' },
      );
  }
  for (const j of steps(2))
    box(
      'IFCSLAB',
      [`Wing roof ${j + 1}`, 'Roof deck, green'],
      'Roof',
      'L150',
      [WING.x - 0.2, WING.y - 0.2 + j * 7.2, WING.high],
      [10.4, 7.2, 0.35],
      { classification: 'B3010 Roof Coverings' },
    );
  for (const i of steps(2))
    box(
      'IFCDOOR',
      [`Boat hall door, leaf ${i + 1}`, 'Folding door 4000 × 7000'],
      'Ground floor',
      'L160',
      [4 + i * 4, -0.25, 0],
      [4, 0.25, 7],
      { classification: 'B2030 Exterior Doors' },
    );
  box(
    'IFCDOOR',
    ['Land door', 'Door, external'],
    'Ground floor',
    'L160',
    [WING.x + 4, WING.y + WING.deep, 0],
    [1.2, 0.1, 2.2],
    { classification: 'B2030 Exterior Doors' },
  );
}

function fitOut(box: Box): void {
  const floors: [Storey, number][] = [
    ['Ground floor', 0],
    ['Upper floor', 3.4],
  ];
  for (const [storey, z] of floors) {
    for (const j of steps(3))
      for (const i of steps(2))
        box(
          'IFCWALL',
          [`Partition ${i + 1}.${j + 1}, ${storey.toLowerCase()}`, 'Partition 100'],
          storey,
          'L180',
          [WING.x + 0.3 + i * 4.7, WING.y + 3.6 + j * 3.4, z],
          [4.6, 0.1, 3],
          { classification: 'C1010 Partitions' },
        );
    for (const j of steps(4))
      box(
        'IFCDOOR',
        [`Inner door ${j + 1}, ${storey.toLowerCase()}`, 'Door, internal'],
        storey,
        'L180',
        [WING.x + 4.95, WING.y + 1.4 + j * 3.3, z],
        [0.06, 0.9, 2.1],
        { classification: 'C1020 Interior Doors' },
      );
  }
  for (const k of steps(6))
    box(
      'IFCFURNITURE',
      [`Locker ${k + 1}`, 'Locker'],
      'Ground floor',
      'L190',
      [WING.x + 0.5 + k * 0.7, WING.y + 0.5, 0],
      [0.6, 0.5, 1.9],
    );
  for (const k of steps(4)) {
    box(
      'IFCFURNITURE',
      [`Training table ${k + 1}`, 'Table 1600'],
      'Upper floor',
      'L190',
      [WING.x + 1 + (k % 2) * 2.2, WING.y + 0.9 + Math.floor(k / 2) * 1.4, 3.4],
      [1.6, 0.8, 0.75],
    );
    box(
      'IFCFURNITURE',
      [`Bench ${k + 1}`, 'Bench'],
      'Upper floor',
      'L190',
      [WING.x + 1 + (k % 2) * 2.2, WING.y + 0.5 + Math.floor(k / 2) * 1.4, 3.4],
      [1.6, 0.35, 0.45],
    );
  }
}

function plant(box: Box): void {
  for (const k of steps(8))
    box(
      'IFCPIPESEGMENT',
      [`Heating pipe ${k + 1}`, 'Pipe 80'],
      k < 4 ? 'Ground floor' : 'Upper floor',
      'L200',
      [WING.x + 0.4, WING.y + 0.8 + (k % 4) * 3.3, k < 4 ? 2.8 : 6.2],
      [0.08, 3.1, 0.08],
    );
  for (const k of steps(6))
    box(
      'IFCCABLECARRIERSEGMENT',
      [`Cable tray ${k + 1}`, 'Cable tray 300'],
      'Ground floor',
      'L200',
      [15.2, 0.6 + k * 4.2, 6.4],
      [0.3, 4, 0.1],
    );
  box(
    'IFCBOILER',
    ['Heat pump', 'Heat pump, sea water'],
    'Ground floor',
    'L200',
    [WING.x + 7.6, WING.y + 11.5, 0],
    [1.6, 1.2, 1.8],
  );
  box(
    'IFCTANK',
    ['Water tank', 'Tank 2 m³'],
    'Ground floor',
    'L200',
    [WING.x + 5.6, WING.y + 11.5, 0],
    [1.4, 1.2, 1.6],
  );
  box('IFCMECHANICALFASTENER', ['Winch bed', 'Winch'], 'Ground floor', 'L220', [6.4, 23, 0], [3.2, 2.2, 0.5]);
  box('IFCBUILDINGELEMENTPROXY', ['Winch drum', 'Winch'], 'Ground floor', 'L220', [7, 23.4, 0.5], [2, 1.4, 1.4]);
  box('IFCBUILDINGELEMENTPROXY', ['Cradle', 'Cradle'], 'Ground floor', 'L220', [5.6, 3, 0.2], [4.8, 13, 1.2]);
  const fall = 1 / 5;
  const tilt = Math.hypot(1, fall);
  for (const [x, side] of [
    [6.2, 'north'],
    [9.5, 'south'],
  ] as const) {
    for (const k of steps(11))
      box(
        'IFCMEMBER',
        [`Slip rail ${side} ${k + 1}`, 'Rail, galvanised'],
        'Slipway',
        'L230',
        [x, -(k + 1) * 3.2, -(k + 1) * 3.2 * fall],
        [0.25, 3.2 * tilt, 0.2],
        { up: [0, -fall / tilt, 1 / tilt] },
      );
    for (const k of steps(3))
      box(
        'IFCMEMBER',
        [`Hall rail ${side} ${k + 1}`, 'Rail, galvanised'],
        'Ground floor',
        'L230',
        [x, k * 7.5, 0],
        [0.25, 7.5, 0.2],
      );
  }
  box('IFCTANK', ['Fuel tank', 'Tank 5 m³'], 'Ground floor', 'L240', [2, 27, 0], [2.6, 1.8, 1.7]);
  for (const k of steps(4))
    box(
      'IFCFIRESUPPRESSIONTERMINAL',
      [`Hydrant ${k + 1}`, 'Hydrant'],
      'Ground floor',
      'L240',
      [0.4, 3 + k * 6.5, 0],
      [0.4, 0.4, 1],
    );
}

/** What stands for a while, and what nobody has planned. */
function temporary(box: Box): void {
  for (const k of steps(3))
    box(
      'IFCBUILDINGELEMENTPROXY',
      [`Site cabin ${k + 1}`, 'Cabin 6 m'],
      'Ground floor',
      null,
      [30 + (k % 2) * 6.6, 22 + Math.floor(k / 2) * 3, 0],
      [6, 2.4, 2.6],
    );
  box('IFCBUILDINGELEMENTPROXY', ['Piling rig', 'Rig'], 'Ground floor', null, [4, 28, 0], [3, 4.5, 12]);
  box('IFCBUILDINGELEMENTPROXY', ['Flagpole', 'Pole 9 m'], 'Ground floor', null, [30, 4, 0], [0.15, 0.15, 9]);
  box('IFCBUILDINGELEMENTPROXY', ['Weather mast', 'Mast 12 m'], 'Roof', null, [24.5, 18.5, 7.15], [0.2, 0.2, 5]);
  for (const k of steps(3))
    box(
      'IFCFURNITURE',
      [`Bench outside ${k + 1}`, 'Bench, oak'],
      'Ground floor',
      null,
      [29 + k * 3, 1.5, 0],
      [1.8, 0.5, 0.45],
    );
}

/** The last twenty units of section 8, north of the station: piles, toe beam, base, units, backfill. */
function seaWall(box: Box): void {
  for (const k of steps(20)) {
    const x = -4 - (k + 1) * 3;
    const n = String(20 - k);
    for (const j of steps(3))
      box(
        'IFCPILE',
        [`Sheet pile ${n}.${j + 1}`, 'Sheet pile 1000'],
        'Sea wall',
        'T208',
        [x + j, -3, -6],
        [1, 0.3, 5],
        { classification: 'G2060 Sea walls' },
      );
    if (k % 2 === 0)
      box('IFCBEAM', [`Toe beam ${n}`, 'Toe beam'], 'Sea wall', 'T308', [x - 3, -3.4, -1.2], [6, 1.1, 1], {
        classification: 'G2060 Sea walls',
      });
    if (k % 2 === 0)
      box('IFCFOOTING', [`Wall base ${n}`, 'Wall base 600'], 'Sea wall', 'W108', [x - 3, -2.2, -0.8], [6, 3.4, 0.6], {
        classification: 'G2060 Sea walls',
      });
    box(
      'IFCWALL',
      [`Wall unit ${n}`, 'Wall unit, precast 3 m'],
      'Sea wall',
      'W208',
      [x + 0.02, -1.8, -0.2],
      [2.96, 0.9, 3.4],
      { classification: 'G2060 Sea walls' },
    );
    box('IFCSLAB', [`Backfill ${n}`, 'Backfill'], 'Sea wall', 'W308', [x, -0.9, -0.2], [3, 2.4, 2.6]);
  }
}

/** The model as a file of its standard. */
export function stationModel(): string {
  const lines: string[] = [];
  const add = (entity: string): string => {
    lines.push(`#${lines.length + 1}=${entity};`);
    return `#${lines.length}`;
  };
  const known = new Map<string, string>();
  const once = (entity: string): string => {
    const at = known.get(entity) ?? add(entity);
    known.set(entity, at);
    return at;
  };
  const id = (what: string) => stepText(globalId(`Saltmere ${what}`));
  const point = (p: readonly number[]) => once(`IFCCARTESIANPOINT((${p.map((v) => stepReal(rounded(v))).join(',')}))`);
  const direction = (p: readonly number[]) => once(`IFCDIRECTION((${p.map((v) => stepReal(rounded(v))).join(',')}))`);
  const axes = (p: readonly number[], up: readonly number[] = [0, 0, 1], along: readonly number[] = [1, 0, 0]) =>
    once(`IFCAXIS2PLACEMENT3D(${point(p)},${direction(up)},${direction(along)})`);
  const place = (p: readonly number[], within: string, up?: readonly number[], along?: readonly number[]) =>
    add(`IFCLOCALPLACEMENT(${within},${axes(p, up, along)})`);

  const units = [
    'LENGTHUNIT.,$,.METRE',
    'AREAUNIT.,$,.SQUARE_METRE',
    'VOLUMEUNIT.,$,.CUBIC_METRE',
    'PLANEANGLEUNIT.,$,.RADIAN',
  ];
  const unit = add(`IFCUNITASSIGNMENT((${units.map((u) => add(`IFCSIUNIT(*,.${u}.)`)).join(',')}))`);
  const context = add(`IFCGEOMETRICREPRESENTATIONCONTEXT($,'Model',3,1.E-05,${axes([0, 0, 0])},$)`);
  const project = add(`IFCPROJECT(${id('project')},$,'Saltmere sea wall',$,$,$,$,(${context}),${unit})`);
  const whole = place([0, 0, 0], '$');
  const site = add(`IFCSITE(${id('site')},$,'Saltmere shore',$,$,${whole},$,$,.ELEMENT.,$,$,$,$,$)`);
  const building = add(`IFCBUILDING(${id('building')},$,'Lifeboat station',$,$,${whole},$,$,.ELEMENT.,$,$,$)`);
  const storeys = new Map(
    Object.entries(STOREYS).map(([name, z]) => [
      name,
      add(`IFCBUILDINGSTOREY(${id(name)},$,${stepText(name)},$,$,${whole},$,$,.ELEMENT.,${stepReal(z)})`),
    ]),
  );
  add(`IFCRELAGGREGATES(${id('a')},$,$,$,${project},(${site}))`);
  add(`IFCRELAGGREGATES(${id('b')},$,$,$,${site},(${building}))`);
  add(`IFCRELAGGREGATES(${id('c')},$,$,$,${building},(${[...storeys.values()].join(',')}))`);

  const groups = {
    storey: new Map<string, string[]>(),
    type: new Map<string, string[]>(),
    work: new Map<string, string[]>(),
    size: new Map<string, string[]>(),
    system: new Map<string, string[]>(),
  };
  const into = (map: Map<string, string[]>, key: string, ref: string) => map.set(key, [...(map.get(key) ?? []), ref]);
  const shapes = new Map<string, string>();
  for (const t of stationThings()) {
    const [wide, deep, high] = t.size;
    const key = `${t.size.map(rounded).join(' ')} ${t.round ? 'round' : ''}`;
    let shape = shapes.get(key);
    if (!shape) {
      const middle = once(`IFCAXIS2PLACEMENT2D(${point([wide / 2, deep / 2])},$)`);
      const profile = t.round
        ? add(`IFCCIRCLEPROFILEDEF(.AREA.,$,${middle},${stepReal(rounded(wide / 2))})`)
        : add(`IFCRECTANGLEPROFILEDEF(.AREA.,$,${middle},${stepReal(rounded(wide))},${stepReal(rounded(deep))})`);
      const solid = add(
        `IFCEXTRUDEDAREASOLID(${profile},${axes([0, 0, 0])},${direction([0, 0, 1])},${stepReal(rounded(high))})`,
      );
      const body = add(`IFCSHAPEREPRESENTATION(${context},'Body','SweptSolid',(${solid}))`);
      shape = add(`IFCPRODUCTDEFINITIONSHAPE($,$,(${body}))`);
      shapes.set(key, shape);
    }
    const own = place(t.at, whole, t.up, t.along);
    const tail = TAILS[t.kind] ?? ',$';
    const ref = add(`${t.kind}(${id(`${t.name} of ${t.type}`)},$,${stepText(t.name)},$,$,${own},${shape},$${tail})`);
    into(groups.storey, t.storey, ref);
    into(groups.type, `${t.kind}|${t.type}`, ref);
    if (t.work) into(groups.work, t.work, ref);
    into(groups.size, key, ref);
    if (t.classification) into(groups.system, t.classification, ref);
  }
  const list = (refs: readonly string[]) => `(${refs.join(',')})`;
  for (const [name, refs] of groups.storey)
    add(`IFCRELCONTAINEDINSPATIALSTRUCTURE(${id(`in ${name}`)},$,$,$,${list(refs)},${storeys.get(name)})`);
  for (const [key, refs] of groups.type) {
    const type = add(
      `IFCBUILDINGELEMENTPROXYTYPE(${id(`type ${key}`)},$,${stepText(key.split('|')[1]!)},$,$,$,$,$,$,.NOTDEFINED.)`,
    );
    add(`IFCRELDEFINESBYTYPE(${id(`of type ${key}`)},$,$,$,${list(refs)},${type})`);
  }
  for (const [work, refs] of groups.work) {
    const value = add(`IFCPROPERTYSINGLEVALUE('Code',$,IFCLABEL(${stepText(work)}),$)`);
    const set = add(`IFCPROPERTYSET(${id(`work ${work}`)},$,'Work',$,(${value}))`);
    add(`IFCRELDEFINESBYPROPERTIES(${id(`has work ${work}`)},$,$,$,${list(refs)},${set})`);
  }
  for (const [key, refs] of groups.size) {
    const [sizes, round] = [key.split(' ').slice(0, 3).map(Number), key.endsWith('round')];
    const [wide, deep, high] = sizes as [number, number, number];
    const ground = round ? (Math.PI * wide * wide) / 4 : wide * deep;
    const quantities = [
      add(`IFCQUANTITYLENGTH('Length',$,$,${stepReal(rounded(Math.max(wide, deep, high)))},$)`),
      add(
        `IFCQUANTITYAREA('GrossArea',$,$,${stepReal(
          rounded(
            round
              ? ground
              : [wide, deep, high]
                  .sort((a, b) => b - a)
                  .slice(0, 2)
                  .reduce((a, b) => a * b),
          ),
        )},$)`,
      ),
      add(`IFCQUANTITYVOLUME('NetVolume',$,$,${stepReal(rounded(ground * high))},$)`),
    ];
    const set = add(`IFCELEMENTQUANTITY(${id(`size ${key}`)},$,'BaseQuantities',$,$,${list(quantities)})`);
    add(`IFCRELDEFINESBYPROPERTIES(${id(`has size ${key}`)},$,$,$,${list(refs)},${set})`);
  }
  const system = add(`IFCCLASSIFICATION($,$,$,'UNIFORMAT II',$,$,$)`);
  for (const [words, refs] of groups.system) {
    const [code, ...name] = words.split(' ');
    const reference = add(`IFCCLASSIFICATIONREFERENCE($,${stepText(code!)},${stepText(name.join(' '))},${system},$,$)`);
    add(`IFCRELASSOCIATESCLASSIFICATION(${id(`class ${words}`)},$,$,$,${list(refs)},${reference})`);
  }
  return stepFile(STATION_MODEL, '2026-09-03T12:00:00', lines);
}

/** What stands behind the tag of an element, where it is not its kind alone. */
const TAILS: Record<string, string> = {
  IFCDOOR: ',$,$,$,$,$',
  IFCWINDOW: ',$,$,$,$,$',
  IFCPILE: ',$,$',
  IFCFURNITURE: ',$',
  IFCMECHANICALFASTENER: ',$,$,$',
};

const rounded = (v: number): number => Math.round(v * 1e6) / 1e6 + 0;
