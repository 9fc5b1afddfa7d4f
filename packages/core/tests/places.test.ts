import { describe, expect, test } from '@jest/globals';
import { dayOf, finishDayOf, isoDate, type PlaceKind, readPastedPlaces, placeOn, workedOutPlace } from '../src/index';

const rows = (text: string) => text.split('\n').map((l) => l.split('\t'));
const read = (text: string, kind: PlaceKind, unit = 'chainage') => readPastedPlaces(rows(text), kind, unit);

describe('places pasted in bulk', () => {
  test('stations: name and place in either order, with headings or without', () => {
    const wanted = [
      { name: 'Harbour', at: 0 },
      { name: 'Ramp, north', at: 1_300_000 },
    ];
    for (const text of [
      'Harbour\t0+000\nRamp, north\t1+300',
      '0+000\tHarbour\n1+300\tRamp, north',
      'Place\tName\n0+000\tHarbour\n1+300\tRamp, north',
    ])
      expect(read(text, 'stations')).toMatchObject({ stations: wanted, problems: [] });
  });

  test('stations that are numbers too need headings: then they are told apart', () => {
    const plain = read('1\t100\n2\t200', 'stations', 'm');
    expect(plain.stations).toEqual([]);
    expect(plain.problems.map((p) => p.why)).toEqual(Array(2).fill(expect.stringContaining('Put headings above them')));
    expect(read('Station\tAt\n1\t100\n2\t200', 'stations', 'm').stations).toEqual([
      { name: '1', at: 100_000 },
      { name: '2', at: 200_000 },
    ]);
  });

  test('zones: from and to by their headings, whatever their order', () => {
    expect(read('To\tZone\tFrom\n500\tNorth\t0\n900\tSouth\t500', 'zones', 'm').zones).toEqual([
      { name: 'North', from: 0, to: 500_000 },
      { name: 'South', from: 500_000, to: 900_000 },
    ]);
  });

  test('closed windows: places and days, the last day whole', () => {
    const { windows, problems } = read(
      'Birds\t0+300\t1+100\t2026-04-01\t31.7.2026\nTide\t0\t200\t2026-05-02\t2026-05-01',
      'windows',
    );
    expect(windows.map((w) => [w.name, w.from, w.to, isoDate(dayOf(w.start)), isoDate(finishDayOf(w.finish))])).toEqual(
      [['Birds', 300_000, 1_100_000, '2026-04-01', '2026-07-31']],
    );
    expect(problems).toEqual([
      { row: 2, text: 'Tide · 0 · 200 · 2026-05-02 · 2026-05-01', why: 'Its last day lies before its first.' },
    ]);
  });

  test('what cannot be read is listed with its row, and the rest is taken', () => {
    const { stations, problems } = read('A\t0+100\nB\t0+200\nC\tnowhere', 'stations');
    expect(stations.map((s) => s.name)).toEqual(['A', 'B']);
    expect(problems).toEqual([{ row: 3, text: 'C · nowhere', why: '“nowhere” is no place.' }]);
  });

  test('colours and styles of stations and zones, wherever their columns stand', () => {
    expect(
      read('Colour\tName\tPlace\tStyle\n#b3402e\tGate\t100\tsolid\n\tRoad\t200\tonly at the scale', 'stations', 'm')
        .stations,
    ).toEqual([
      { name: 'Gate', at: 100_000, colour: '#B3402E', style: 'solid' },
      { name: 'Road', at: 200_000, style: 'scale' },
    ]);
    const { zones, problems } = read(
      'North\t0\t500\tdashed\nSouth\t500\t900\tdashed\nEast\t900\t950\tspotty',
      'zones',
      'm',
    );
    expect(zones.map((z) => z.style)).toEqual(['dashed', 'dashed']);
    expect(problems.map((p) => [p.row, p.why])).toEqual([
      [3, '“spotty” is no colour (as in #0F6E6E) or style (solid, dashed, scale).'],
    ]);
  });
});

describe('a place that was worked out', () => {
  const line = (length: number, unit = 'm') => ({ from: 0, to: length * 1000, unit });

  test.each([
    // To a metre on a line of 2.6 km, to a hundred metres on one of 300 km, to a millimetre where nobody says its length.
    [line(2600), 531.818, '532 m'],
    [line(999), 531.818, '531.8 m'],
    [line(300, 'km'), 157.3333, '157.3 km'],
    [line(300_000), 157_333.3, '157,300 m'],
    [line(6200, 'chainage'), 1050.4, '1+050'],
    [line(2600), -249.6, '−250 m'],
  ])('case %#: as finely as its line can be read', (on, place, words) =>
    expect(placeOn(on, workedOutPlace(on, place))).toBe(words),
  );

  test('what a person stated stays as it was', () => expect(placeOn(line(2600), 531.818)).toBe('531.818 m'));

  test('without a line to the thousandth', () => expect(workedOutPlace(null, 1 / 3)).toBe(0.333));
});
