import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { type PackedPlan, Plan, unpackPlan } from '@clembo/core';
import { type IntakeState, writePlanJson } from '@clembo/formats';
import writeXlsx from 'write-excel-file/node';
import { demoPlans } from '../../../demo/index';
import { mutateBytes, mutateJson, mutateText, mutateWorkbook } from '../../../tests/fuzz/mutants';
import { seeded } from '../../../tests/support/random';
import { bundle } from '../../../tools/lib/bundle.mjs';
import { HandRefused, Hands, HandStopped } from '../src/hands/hands';

const MANY = Number(process.env.CLEMBO_FUZZ ?? 1000);
const SEED = Number(process.env.CLEMBO_SEED ?? Date.now() % 1_000_000_000);
/** Far below what a job may take: small files are read at once, however they are damaged. */
const BOUNDS = { seconds: 5, megabytes: 900 };

let hands: Hands;
beforeAll(async () => {
  process.env.CLEMBO_ROOT = process.cwd();
  const entries = { main: 'apps/worker/src/main.ts', hand: 'apps/worker/src/hands/hand.ts' };
  const made = await bundle('clembo-worker', entries, ['core', 'formats', 'scene', 'render', 'store']);
  hands = new Hands(join(made, 'hand.mjs'), 600);
});
afterAll(() => hands.end());

const ask = (task: string, input: unknown) => hands.work(task, input, { bounds: BOUNDS });

/** Takes a file in as a job does, as far as it goes. Refused in words is right; anything else that is thrown is not. */
async function takeIn(bytes: Uint8Array, source: string, draw: boolean): Promise<'plan' | 'refused'> {
  try {
    const read = (await ask('readFiles', { files: [{ name: source, bytes }], known: [] })) as {
      made?: { plan: PackedPlan; brief: unknown };
      tables: Uint8Array;
      state: IntakeState;
    };
    let made = read.made;
    if (!made) {
      const { tables, state } = read;
      const map = { ...state.parts[0]!.map, dateOrder: 'dmy' };
      const changed = (await ask('changeIntake', { tables, state, change: { map }, known: [] })) as {
        state: IntakeState;
      };
      const wish = { name: 'Fuzz', strict: false, start: 0 };
      made = (await ask('makePlan', { tables, state: changed.state, wish })) as { plan: PackedPlan; brief: unknown };
      // What a person cannot mend on the column map must not be refused later by the store.
      const accepted = Plan.safeParse(unpackPlan(made.plan));
      if (!accepted.success) throw new Error(`not a plan: ${accepted.error.message.slice(0, 500)}`);
    }
    if (draw)
      await ask('writePages', {
        plans: [{ plan: made.plan, edition: 'x', models: null, promised: null }],
        folio: null,
        pages: [{ name: 'Fuzz', of: 0, brief: made.brief, promised: null, editions: [] }],
        locale: 'en-GB',
        format: 'svg',
        sheet: 1,
        date: 0,
      });
    return 'plan';
  } catch (error) {
    // The engine that opens models is not ours: what makes it run on is stopped, and the job fails in words.
    if (error instanceof HandStopped && source.endsWith('.ifc')) return 'refused';
    if (error instanceof HandRefused) {
      expect(error.message).toMatch(/\w+ \w+/);
      return 'refused';
    }
    throw error;
  }
}

const CSV = `ID;Name;Start;Finish;Days;Preds;Phase;Percent;Parent;Chainage from;Chainage to;Rate;Cost
A1;Site set-up;05/01/2026;16/01/2026;10;;Prepare;100 %;;0;100;12.5;1,200.50
A2;Piling, north;19/01/2026;13/02/2026;20;A1;Build;40 %;;100;900;40;99000
A3;  Piling south;02/02/2026;;20;A2 SS+10d;Build;;A2;900;1500;;
A4;Capping beam;16/02/2026;13/03/2026;20;A2,A3 FF-2d;Build;0;;;;;
A5;Handover;13/03/2026;13/03/2026;0;A4;Finish;;;;;;
`;
const cell = (value: unknown) => ({ value });
const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);

describe(`damaged files, ${MANY} of each kind (CLEMBO_SEED=${SEED})`, () => {
  const run = async (make: (random: () => number) => Uint8Array, source: string, many = MANY) => {
    const random = seeded(SEED);
    const came = { plan: 0, refused: 0 };
    for (let k = 0; k < many; k++) {
      const bytes = make(random);
      try {
        came[await takeIn(bytes, source, k % 10 === 0)]++;
      } catch (error) {
        throw new Error(`${source} number ${k} of seed ${SEED}: ${(error as Error).message}`);
      }
    }
    // The test would be of no use if everything were refused, or nothing.
    expect(came.plan).toBeGreaterThan(many / 20);
    expect(came.refused).toBeGreaterThan(0);
  };

  test(
    'delimited text',
    () => run((r) => (r() < 0.1 ? mutateBytes(bytesOf(CSV), r) : bytesOf(mutateText(CSV, r))), 'x.csv'),
    600_000,
  );

  const sample = (name: string) => readFileSync(join('packages/formats/tests/tables', name), 'utf8');

  test('calendars', () => {
    const text = sample('regatta.ics');
    return run((r) => (r() < 0.1 ? mutateBytes(bytesOf(text), r) : bytesOf(mutateText(text, r))), 'x.ics');
  }, 600_000);

  // A model is opened by an engine of its own, which takes its time.
  test('building models', () => {
    const text = sample('boathouse.ifc');
    const damaged = (r: () => number) => (r() < 0.3 ? mutateBytes(bytesOf(text), r) : bytesOf(mutateText(text, r)));
    return run(damaged, 'x.ifc', Math.ceil(MANY / 10));
  }, 600_000);

  test('workbooks', async () => {
    const data = CSV.trim()
      .split('\n')
      .map((line) => line.split(';').map((text) => cell(text)));
    const whole = new Uint8Array(await writeXlsx([{ sheet: 'Plan', data }] as never).toBuffer());
    await run((r) => mutateWorkbook(whole, r), 'x.xlsx');
  }, 600_000);

  test('our own JSON', async () => {
    const museum = demoPlans()[1]!.current;
    const some = museum.activities.slice(0, 12);
    const refs = new Set(some.map((a) => a.ref));
    const links = museum.links.filter((l) => refs.has(l.from) && refs.has(l.to));
    const text = writePlanJson({ ...museum, activities: some, links });
    await run((r) => bytesOf(mutateJson(text, r)), 'x.json');
  }, 600_000);
});

const HOSTILE = 'tests/fuzz/hostile';
test.each(readdirSync(HOSTILE))('a file that hurt once: %s', async (name) => {
  await takeIn(new Uint8Array(readFileSync(join(HOSTILE, name))), name, true);
});
