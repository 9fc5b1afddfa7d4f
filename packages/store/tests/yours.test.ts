import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import {
  asStarter,
  applyCommand,
  type Command,
  compareEditions,
  isSame,
  makeActivity,
  makeField,
  makeLink,
  makeValue,
  type Plan,
} from '@clembo/core';
import { demoPlans } from '../../../demo/index';
import {
  type Access,
  changePlan,
  createExhibit,
  createFolio,
  createIntake,
  createPlan,
  createWorkspace,
  dropBook,
  dropStarter,
  firstWorkspace,
  IntakeGone,
  JobWatch,
  keepBook,
  keepEdition,
  keepStarter,
  keepWholePlan,
  listEditions,
  listExhibits,
  listFolios,
  listKeptBooks,
  listPlanChanges,
  listSources,
  listStarters,
  PlanRefused,
  readPlan,
  readSource,
  readSteps,
  readStarter,
  readTurns,
  readWholePlan,
  type Store,
  turnChange,
  turnTo,
  VersionPassed,
  workOnEdition,
} from '../src/index';
import { freshStore, storeUrl } from './freshStore';

let store: Store;
let ours: Access;
let theirs: Access;
const [wall, museum] = demoPlans() as [ReturnType<typeof demoPlans>[number], ReturnType<typeof demoPlans>[number]];

beforeAll(async () => {
  store = await freshStore('clembo_yours');
  ours = { workspace: (await firstWorkspace(store)).id, person: 'Ada', role: 'owner' };
  theirs = { workspace: await createWorkspace(store, 'Another'), person: null, role: 'owner' };
});
afterAll(() => store.pool.end());

const same = (a: Plan, b: Plan) => expect(isSame(compareEditions(a, b))).toBe(true);
const rename = (ref: string, name: string): Command => ({ do: 'changeActivity', ref, part: { name } });

describe('what was changed can be taken back, also later', () => {
  test('one after the other, in order, and done again; a new change ends what could be done again', async () => {
    const id = await createPlan(store, ours, museum.current, 'x');
    const plan = async () => (await readPlan(store, ours, id))!;
    const first = museum.current.activities[1]!.ref;
    let version = 1;
    const change = async (command: Command, words?: string) => {
      version = (await changePlan(store, ours, id, version, command, { words }))!.version;
    };
    const turn = async (undo: boolean) => {
      const turned = await turnChange(store, ours, id, version, undo);
      version = turned?.version ?? version;
      return turned?.words ?? null;
    };
    expect(await readTurns(store, ours, id)).toEqual({ undo: null, redo: null });
    await change(rename(first, 'One'));
    await change(rename(first, 'Two'), 'Call it two');
    await change({ do: 'addLink', link: makeLink({ from: first, to: museum.current.activities[2]!.ref }) });
    expect((await listPlanChanges(store, ours, id)).map((c) => [c.words, c.person])).toEqual([
      [`Link ${first} → ${museum.current.activities[2]!.ref}`, 'Ada'],
      ['Call it two', 'Ada'],
      [`Rename ${first}`, 'Ada'],
    ]);
    await turn(true);
    expect([await turn(true), (await plan()).plan.activities[1]!.name]).toEqual(['Call it two', 'One']);
    expect(await readTurns(store, ours, id)).toEqual({ undo: `Rename ${first}`, redo: 'Call it two' });
    expect([await turn(false), (await plan()).plan.activities[1]!.name]).toEqual(['Call it two', 'Two']);
    for (let k = 0; k < 5; k++) await turn(true);
    same((await plan()).plan, museum.current);
    expect(await turn(true)).toBeNull();
    await change(rename(first, 'Three'));
    expect(await turn(false)).toBeNull();
    // Somebody was quicker.
    await expect(turnChange(store, ours, id, version - 1, true)).rejects.toThrow(VersionPassed);
    expect(await turnChange(store, theirs, id, version, true)).toBeNull();
    expect(await readTurns(store, theirs, id)).toEqual({ undo: null, redo: null });
  });

  test('any point of the history can be gone to, and the way back is there too', async () => {
    const id = await createPlan(store, ours, museum.current, 'x');
    const [, a, b] = museum.current.activities.map((x) => x.ref) as [string, string, string];
    let version = 1;
    const states: Plan[] = [museum.current];
    for (const command of [rename(a, 'One'), rename(b, 'Two'), rename(a, 'Three')]) {
      version = (await changePlan(store, ours, id, version, command))!.version;
      states.push((await readPlan(store, ours, id))!.plan);
    }
    const changes = await listPlanChanges(store, ours, id);
    expect((await listPlanChanges(store, ours, id, a)).map((c) => c.id)).toEqual([changes[0]!.id, changes[2]!.id]);
    const go = async (to: number, state: number) => {
      const turned = await turnTo(store, ours, id, version, to);
      version = turned!.version;
      const { plan } = (await readPlan(store, ours, id))!;
      same(plan, states[state]!);
      return turned!.words;
    };
    expect(await go(0, 0)).toBe('3 changes');
    expect(await go(changes[1]!.id, 2)).toBe('2 changes');
    expect(await go(changes[2]!.id, 1)).toBe(`Rename ${b}`);
    expect(await go(changes[0]!.id, 3)).toBe('2 changes');
    expect(await turnTo(store, ours, id, version, changes[0]!.id)).toBeNull();
    expect(await turnTo(store, theirs, id, version, 0)).toBeNull();
    // The steps that made the versions lead others to the same plan.
    const { steps } = (await readSteps(store, ours, id, 1))!;
    same(
      steps!.reduce((plan, step) => applyCommand(plan, step.command).plan, museum.current),
      states[3]!,
    );
  });

  test('books, codes, required fields and what is put aside are kept, and taken back', async () => {
    const id = await createPlan(store, ours, wall.current, 'x');
    const [a, b] = wall.current.activities.filter((x) => x.kind !== 'summary').map((x) => x.ref) as [string, string];
    const field = makeField({
      id: 'crew',
      name: 'Crew',
      values: [makeValue({ code: 'A', colour: '#123456', shape: 'star' }), makeValue({ code: 'A1', parent: 'A' })],
      fill: {
        by: 'rules',
        rules: [{ code: 'A', when: { match: 'all', tests: [{ field: 'name', is: 'contains', values: ['pile'] }] } }],
      },
    });
    const command: Command = {
      do: 'all',
      commands: [
        { do: 'setCodeField', field, before: wall.current.codeFields[0]!.id },
        {
          do: 'recode',
          field: 'crew',
          codes: [
            [a, 'A'],
            [b, 'A1'],
          ],
        },
        {
          do: 'setPlan',
          settings: {
            required: ['code.crew'],
            aside: ['noSuccessor X'],
            resources: [
              ...wall.current.resources,
              { id: 'r', name: 'Rigs', unit: 'hour', rate: 9000, limit: 2, calendar: null },
            ],
          },
        },
        { do: 'changeActivity', ref: a, part: { assignments: [{ resource: 'r', effort: 600 }] } },
      ],
    };
    await changePlan(store, ours, id, 1, command);
    const { plan } = (await readPlan(store, ours, id))!;
    expect(plan.codeFields[0]).toEqual(field);
    expect([plan.required, plan.aside, plan.resources.at(-1)!.name]).toEqual([
      ['code.crew'],
      ['noSuccessor X'],
      'Rigs',
    ]);
    const coded = new Map(plan.activities.map((x) => [x.ref, x]));
    expect([coded.get(a)!.codes.crew, coded.get(b)!.codes.crew, coded.get(a)!.assignments]).toEqual([
      'A',
      'A1',
      [{ resource: 'r', effort: 600 }],
    ]);
    await turnChange(store, ours, id, 2, true);
    same((await readPlan(store, ours, id))!.plan, wall.current);
  });
});

test('books are kept for other plans, by name, in their workspace only', async () => {
  const field = makeField({ id: 'zone', name: 'Zone', values: [makeValue({ code: 'N', title: 'North' })] });
  await keepBook(store, ours, 'Zones', field);
  await keepBook(store, ours, 'Zones', { ...field, name: 'Zone, again' });
  const [kept, ...others] = await listKeptBooks(store, ours);
  expect([kept!.name, kept!.field.name, others.length]).toEqual(['Zones', 'Zone, again', 0]);
  expect(await listKeptBooks(store, theirs)).toEqual([]);
  expect(await dropBook(store, theirs, kept!.id)).toBe(false);
  expect(await dropBook(store, ours, kept!.id)).toBe(true);
});

test('a plan is kept as a starter, and read again whole', async () => {
  const id = await keepStarter(store, ours, { name: 'Walls', note: 'From Saltmere', plan: asStarter(wall.current) });
  expect((await listStarters(store, ours)).map((s) => [s.name, s.note, s.activities])).toEqual([
    ['Walls', 'From Saltmere', wall.current.activities.length],
  ]);
  same((await readStarter(store, ours, id))!, asStarter(wall.current));
  expect([
    await readStarter(store, theirs, id),
    await dropStarter(store, theirs, id),
    await dropStarter(store, ours, id),
  ]).toEqual([null, false, true]);
});

describe('a whole plan', () => {
  test('read and kept again it is the same: editions, baseline, exhibits that compare, sources, rows', async () => {
    const source = {
      name: 'wall.csv',
      sheet: null,
      map: { a: 1 },
      content: new Uint8Array([1, 2, 3]),
      aliases: { x: 'y' },
      problems: [{ code: 'z' }],
    };
    const refs = wall.current.activities.map((a) => a.ref);
    const origin = { sources: [source], placeOf: new Map(refs.map((ref, k) => [ref, [0, k + 2] as const])) };
    const id = await createPlan(
      store,
      ours,
      wall.current,
      'Week 37',
      [{ name: 'Contract', plan: wall.baseline }],
      origin,
    );
    const baseline = (await listEditions(store, ours, id))!.find((e) => !e.working)!;
    await createExhibit(store, ours, id, 'Against it', { kind: 'timeline', compare: baseline.id, lanes: ['phase'] });
    await createExhibit(store, ours, id, 'Plain', { kind: 'timeline', compare: null });
    const whole = (await readWholePlan(store, ours, id))!;
    expect(await readWholePlan(store, theirs, id)).toBeNull();

    const { intake } = await createIntake(store, theirs, [{ name: 'wall.clembo', content: new Uint8Array([1]) }]);
    const copy = await keepWholePlan(store, theirs, intake, whole);
    // Asked again it leads to the same plan.
    expect(await keepWholePlan(store, theirs, intake, whole)).toBe(copy);
    await expect(keepWholePlan(store, ours, intake, whole)).rejects.toThrow(IntakeGone);

    const read = (await readPlan(store, theirs, copy))!;
    same(read.plan, wall.current);
    expect(read.rows[refs[4]!]).toEqual([1, 6]);
    const editions = (await listEditions(store, theirs, copy))!;
    const before = (await listEditions(store, ours, id))!;
    expect(editions.map(({ id: _, ...e }) => e)).toEqual(before.map(({ id: _, ...e }) => e));
    const exhibits = await listExhibits(store, theirs, copy);
    expect(exhibits.map((e) => [e.name, (e.brief as { compare: string | null }).compare])).toEqual([
      ['Against it', editions.find((e) => e.baseline)!.id],
      ['Plain', null],
    ]);
    expect((await listSources(store, theirs, copy)).map((s) => [s.name, s.person, s.hasTable])).toEqual([
      ['wall.csv', 'Ada', true],
    ]);
    expect((await readSource(store, theirs, copy, 1))!.content).toEqual(new Uint8Array([1, 2, 3]));
  });

  test('folios go along whose pages are all of it, and speak of the new exhibits and plan', async () => {
    const id = await createPlan(store, ours, wall.current, 'Week 37');
    const other = await createPlan(store, ours, museum.current, 'Week 37');
    const [a, b] = [
      (await createExhibit(store, ours, id, 'First', { kind: 'timeline' }))!,
      (await createExhibit(store, ours, id, 'Second', { kind: 'timeline' }))!,
    ];
    const elsewhere = (await createExhibit(store, ours, other, 'Other', { kind: 'timeline' }))!;
    const content = (...exhibits: string[]) => ({
      name: 'Board',
      pages: exhibits.map((exhibit, k) => ({ id: `p${k}`, exhibit, notes: 'Say it.' })),
      hops: [{ id: 'h', from: { page: 'p0', ref: 'S100' }, to: { page: 'p1' } }],
      blocks: [
        { id: 'x', what: 'phases', plan: id, place: { x: 0, y: 0, width: 1, height: 0.4 } },
        { id: 'y', what: 'text', text: id, place: { x: 0, y: 0.5, width: 1, height: 0.4 } },
      ],
    });
    await createFolio(store, ours, 'Board', content(b, a));
    await createFolio(store, ours, 'Two plans', content(a, elsewhere));
    await createFolio(store, ours, 'Nothing', { name: 'Nothing', pages: [] });
    const whole = (await readWholePlan(store, ours, id))!;
    expect(whole.folios.map((f) => f.name)).toEqual(['Board']);
    expect(JSON.stringify(whole.folios[0]!.content.pages)).not.toContain(a);

    const { intake } = await createIntake(store, theirs, [{ name: 'wall.clembo', content: new Uint8Array([1]) }]);
    const copy = await keepWholePlan(store, theirs, intake, whole);
    const [second, first] = (await listExhibits(store, theirs, copy)).map((e) => e.id).reverse() as [string, string];
    const [kept] = await listFolios(store, theirs);
    const own = content(second, first);
    expect(kept!.content).toEqual({ ...own, blocks: [{ ...own.blocks[0], plan: copy }, own.blocks[1]] });
  });

  test('one that is not well leaves nothing', async () => {
    const id = await createPlan(store, ours, museum.current, 'x');
    const whole = (await readWholePlan(store, ours, id))!;
    const broken = {
      ...whole,
      editions: [
        {
          ...whole.editions[0]!,
          plan: { ...museum.current, activities: [makeActivity({ ref: 'A' }), makeActivity({ ref: 'A' })] },
        },
      ],
    };
    const { intake } = await createIntake(store, theirs, [{ name: 'x', content: new Uint8Array([1]) }]);
    await expect(keepWholePlan(store, theirs, intake, broken)).rejects.toThrow(PlanRefused);
    const twice = {
      ...whole,
      folios: [],
      exhibits: [{ name: 'x', brief: {} }],
      sources: [1, 1].map((no) => ({
        no,
        reading: 1,
        name: 'x',
        sheet: null,
        map: null,
        aliases: {},
        problems: [],
        person: null,
        createdAt: 0,
        content: null,
      })),
    };
    const count = async () => (await store.pool.query('select count(*)::int as n from plan')).rows[0].n;
    const plans = await count();
    await expect(keepWholePlan(store, theirs, intake, twice)).rejects.toThrow();
    expect(await count()).toBe(plans);
  });
});

describe('two people on one plan', () => {
  test('what is about different things is kept from both; the same thing is refused to the later one', async () => {
    const id = await createPlan(store, ours, museum.current, 'x');
    const [a, b] = museum.current.activities.filter((x) => x.kind === 'activity').map((x) => x.ref) as [string, string];
    const change = (version: number, command: Command) => changePlan(store, ours, id, version, command);
    expect((await change(1, rename(a, 'First')))!.version).toBe(2);
    // Made on the first version, about another field and another activity.
    expect((await change(1, { do: 'changeActivity', ref: a, part: { notes: 'mine' } }))!.version).toBe(3);
    expect((await change(1, rename(b, 'Second')))!.version).toBe(4);
    await expect(change(1, rename(a, 'Third'))).rejects.toThrow(VersionPassed);
    await expect(change(3, { do: 'removeActivity', ref: b })).rejects.toThrow(VersionPassed);
    const { plan } = (await readPlan(store, ours, id))!;
    const of = (ref: string) => plan.activities.find((x) => x.ref === ref)!;
    expect([of(a).name, of(a).notes, of(b).name]).toEqual(['First', 'mine', 'Second']);
  });

  test('who was away catches up step by step, or opens the plan anew where a step is no command', async () => {
    const id = await createPlan(store, ours, museum.current, 'x');
    const [a] = museum.current.activities.filter((x) => x.kind === 'activity').map((x) => x.ref) as [string];
    await changePlan(store, ours, id, 1, rename(a, 'One'));
    await changePlan(store, ours, id, 2, rename(a, 'Two'));
    await turnChange(store, ours, id, 3, true);
    const since = (await readSteps(store, ours, id, 1))!;
    expect([since.version, since.steps!.length]).toEqual([4, 3]);
    let plan = museum.current;
    for (const step of since.steps!) plan = applyCommand(plan, step.command).plan;
    same(plan, (await readPlan(store, ours, id))!.plan);
    expect(await readSteps(store, ours, id, 4)).toEqual({ version: 4, steps: [] });
    expect(await readSteps(store, theirs, id, 1)).toBeNull();
    const kept = await keepEdition(store, ours, id, 'Kept');
    await changePlan(store, ours, id, 4, rename(a, 'Three'));
    await workOnEdition(store, ours, id, kept!, 'Set aside');
    expect(await readSteps(store, ours, id, 4)).toEqual({ version: 6, steps: null });
    // And nothing that was made before it is laid over it unseen.
    await expect(
      changePlan(store, ours, id, 5, { do: 'changeActivity', ref: a, part: { notes: 'late' } }),
    ).rejects.toThrow(VersionPassed);
  });

  test('every change is told, once it is kept', async () => {
    const id = await createPlan(store, ours, museum.current, 'x');
    const watch = new JobWatch(storeUrl('clembo_yours'));
    watch.connect();
    await new Promise((r) => setTimeout(r, 300));
    const told = watch.changed(id, 5000);
    const began = Date.now();
    await changePlan(store, ours, id, 1, { do: 'setPlan', settings: { name: 'Told' } });
    await told;
    expect(Date.now() - began).toBeLessThan(4000);
    await watch.end();
  });

  test('two at once, again and again: every change that was kept is in the plan, in order', async () => {
    const id = await createPlan(store, ours, museum.current, 'x');
    const refs = museum.current.activities.map((x) => x.ref);
    const kept: Command[] = [];
    const person = async (name: string, from: number) => {
      for (let k = 0; k < 15; k++) {
        const version = (await readPlan(store, ours, id))!.version;
        const command: Command = {
          do: 'changeActivity',
          ref: refs[(from + k) % refs.length]!,
          part: { notes: `${name} ${k}` },
        };
        const done = await changePlan(store, ours, id, version, command).catch((error) => {
          if (error instanceof VersionPassed) return null;
          throw error;
        });
        if (done) kept.push(command);
      }
    };
    await Promise.all([person('a', 0), person('b', 7), person('c', 14)]);
    const { version, steps } = (await readSteps(store, ours, id, 1))!;
    expect([version - 1, steps!.length]).toEqual([kept.length, kept.length]);
    let plan = museum.current;
    for (const step of steps!) plan = applyCommand(plan, step.command).plan;
    same(plan, (await readPlan(store, ours, id))!.plan);
    expect(kept.length).toBeGreaterThan(30);
  });
});
