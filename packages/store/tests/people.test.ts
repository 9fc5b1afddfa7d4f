import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { saltmere } from '../../../demo/saltmere';
import {
  type Access,
  accessTo,
  accessToPlan,
  belongingsOf,
  changeExhibit,
  changeRole,
  deleteExhibit,
  deletePlan,
  keepWeekly,
  reportWeekly,
  WeeklySaid,
  createExhibit,
  createFolio,
  createPlan,
  createWorkspace,
  dropComment,
  dropInvitation,
  endComment,
  firstWorkspace,
  invite,
  keepShared,
  limits,
  listComments,
  listDeeds,
  listFolios,
  listNotices,
  listPeople,
  listPlans,
  listShared,
  mailNotices,
  markOfShared,
  changePlan,
  openShared,
  ownFirst,
  readInvitation,
  readNotices,
  readPlan,
  readPlanHead,
  readShared,
  removeMember,
  revokeShared,
  openCommentsOn,
  sayComment,
  sendMail,
  sharePage,
  type SharedWish,
  type Store,
  takeInvitation,
} from '../src/index';
import { freshStore } from './freshStore';

let store: Store;
let workspace: string;
let planId: string;
let otherPlan: string;
const owner = (): Access => ({ workspace, person: 'Ada', account: 'ada', role: 'owner' });

const account = async (id: string): Promise<void> => {
  await store.pool.query('insert into person (id, name, email) values ($1, $2, $3) on conflict do nothing', [
    id,
    id[0]!.toUpperCase() + id.slice(1),
    `${id}@saltmere.example`,
  ]);
};
const secret = async (to: string): Promise<string> => {
  const { rows } = await store.pool.query('select text from mail where "to" = $1 order by created_at desc limit 1', [
    to,
  ]);
  return /https:\/\/here\/(\S+)/.exec(rows[0].text)![1]!;
};
const join = async (id: string, role: 'owner' | 'editor' | 'commenter' | 'viewer', plan: string | null = null) => {
  await account(id);
  await invite(store, owner(), { email: `${id}@saltmere.example`, role, planId: plan }, 'https://here/');
  const who = { account: id, name: id[0]!.toUpperCase() + id.slice(1), email: `${id}@saltmere.example` };
  await takeInvitation(store, await secret(who.email), who);
  return accessTo((await belongingsOf(store, id))[0]!, id, who.name);
};

beforeAll(async () => {
  store = await freshStore('clembo_people_store');
  ({ id: workspace } = await firstWorkspace(store, 'Harbour'));
  await account('ada');
  await ownFirst(store, { workspace, person: null, role: 'owner' }, 'ada', 'Ada');
  planId = await createPlan(store, owner(), saltmere().current('2026-01-12', '2026-09-14'), 'First', []);
  otherPlan = await createPlan(store, owner(), saltmere().current('2026-01-12', '2026-09-14'), 'First', []);
}, 120_000);
afterAll(() => store.pool.end());

describe('who belongs', () => {
  test('only one is the first, however many try at once', async () => {
    const empty = await freshStore('clembo_people_first');
    const { id } = await firstWorkspace(empty, 'New');
    for (const who of ['a', 'b', 'c'])
      await empty.pool.query("insert into person (id, name, email) values ($1, $1, $1 || '@x.example')", [who]);
    const tried = await Promise.allSettled(
      ['a', 'b', 'c'].map((who) => ownFirst(empty, { workspace: id, person: null, role: 'owner' }, who, who)),
    );
    expect(tried.filter((t) => t.status === 'fulfilled')).toHaveLength(1);
    await empty.pool.end();
  });

  test('an invitation that is asked for again makes the one before void; one taken back holds no more', async () => {
    const wish = { email: 'new@saltmere.example', role: 'viewer' as const, planId: null };
    await invite(store, owner(), wish, 'https://here/');
    const first = await secret(wish.email);
    await invite(store, owner(), wish, 'https://here/');
    const second = await secret(wish.email);
    expect(await readInvitation(store, first)).toBeNull();
    expect(await readInvitation(store, second)).toMatchObject({ email: wish.email, role: 'viewer', hasAccount: false });
    const { invited } = await listPeople(store, owner());
    expect(await dropInvitation(store, owner(), invited.find((i) => i.email === wish.email)!.id)).toBe(true);
    expect(await readInvitation(store, second)).toBeNull();
  });

  test('an invitation holds for a time, and for one address', async () => {
    await account('late');
    await invite(store, owner(), { email: 'late@saltmere.example', role: 'editor', planId: null }, 'https://here/');
    const token = await secret('late@saltmere.example');
    await expect(
      takeInvitation(store, token, { account: 'ada', name: 'Ada', email: 'ada@saltmere.example' }),
    ).rejects.toThrow('is for late@saltmere.example');
    await store.pool.query("update invitation set expires_at = now() - interval '1 minute'");
    await expect(
      takeInvitation(store, token, { account: 'late', name: 'Late', email: 'late@saltmere.example' }),
    ).rejects.toThrow('holds no more');
    await store.pool.query('delete from invitation');
  });

  test('a guest sees their plan, and nothing that the workspace has in common', async () => {
    const guest = await join('guest', 'editor', planId);
    expect(guest).toMatchObject({ role: 'viewer', guest: true, only: [planId] });
    await createFolio(store, owner(), 'Board', {});
    expect((await listPlans(store, guest)).map((p) => p.id)).toEqual([planId]);
    expect(await listFolios(store, guest)).toEqual([]);
    expect(await readPlanHead(store, guest, otherPlan)).toBeNull();
    const within = accessToPlan(guest, (await belongingsOf(store, 'guest'))[0]!, planId);
    expect(within).toMatchObject({ role: 'editor', only: [planId] });
    expect(await createExhibit(store, within, planId, 'Page', { kind: 'timeline' })).not.toBeNull();
    expect(await createExhibit(store, within, otherPlan, 'Page', { kind: 'timeline' })).toBeNull();
    await expect(createPlan(store, within, saltmere().current('2026-01-12', '2026-09-14'), 'X', [])).rejects.toThrow(
      'add nothing else',
    );
    const words = (await listDeeds(store, guest)).map((d) => d.planId);
    expect(new Set(words)).toEqual(new Set([planId]));
  });

  test('a workspace keeps an owner, and who is removed belongs no more', async () => {
    await join('second', 'owner');
    expect(await changeRole(store, owner(), 'second', { role: 'editor' })).toBe(true);
    await expect(changeRole(store, owner(), 'ada', { role: 'editor' })).rejects.toThrow('needs an owner');
    await expect(removeMember(store, owner(), 'ada')).rejects.toThrow('needs an owner');
    expect(await removeMember(store, owner(), 'second')).toBe(true);
    expect(await belongingsOf(store, 'second')).toEqual([]);
  });

  test('an invitation from before takes nothing from the only owner', async () => {
    const id = await createWorkspace(store, 'One owner');
    const first: Access = { workspace: id, person: 'Fay', role: 'owner' };
    await account('fay');
    const who = { account: 'fay', name: 'Fay', email: 'fay@saltmere.example' };
    await invite(store, first, { email: who.email, role: 'editor', planId: null }, 'https://here/');
    const token = await secret(who.email);
    await store.pool.query('insert into member (workspace_id, person_id, role) values ($1, $2, $3)', [
      id,
      'fay',
      'owner',
    ]);
    await expect(takeInvitation(store, token, who)).rejects.toThrow('A workspace needs an owner');
    const { rows } = await store.pool.query('select role from member where workspace_id = $1', [id]);
    expect(rows).toEqual([{ role: 'owner' }]);
    await store.pool.query('delete from member where workspace_id = $1', [id]);
  });

  test('two owners who end each other at once leave one', async () => {
    await join('left', 'owner');
    await join('right', 'owner');
    await changeRole(store, owner(), 'ada', { role: 'viewer' });
    const by = (id: string): Access => ({ workspace, person: id, account: id, role: 'owner' });
    await Promise.allSettled([
      changeRole(store, by('left'), 'right', { role: 'viewer' }),
      changeRole(store, by('right'), 'left', { role: 'viewer' }),
    ]);
    const { rows } = await store.pool.query("select count(*)::int as n from member where role = 'owner'");
    expect(rows[0].n).toBe(1);
    await store.pool.query("update member set role = 'owner' where person_id = 'ada'");
    for (const id of ['left', 'right']) await removeMember(store, owner(), id);
  });
});

describe('comments', () => {
  const said = { ref: null, exhibitId: null, answers: null, named: [] as string[] };

  test('about a place are about one of an exhibit, and keep it', async () => {
    const place = { ref: 'A', at: 'start', dx: 1, dy: 0 };
    const here = { ...said, text: 'Here?', place };
    await expect(sayComment(store, owner(), planId, here)).rejects.toThrow('A place is one of an exhibit');
    const exhibitId = await createExhibit(store, owner(), planId, 'A page', {});
    const id = await sayComment(store, owner(), planId, { ...here, exhibitId });
    const kept = async () => (await listComments(store, owner(), planId))!.find((c) => c.id === id);
    expect(await kept()).toMatchObject({ exhibitId, place, text: 'Here?' });
    await dropComment(store, owner(), id!);
    expect(await kept()).toBeUndefined();
  });

  test('tell those who are named and see the plan, and who spoke before; nobody is told of their own', async () => {
    const ben = await join('ben', 'commenter');
    await join('cleo', 'viewer');
    await account('outside');
    const first = await sayComment(store, ben, planId, {
      ...said,
      text: 'Is it late?',
      named: ['ada', 'cleo', 'outside', 'guest', 'ben'],
    });
    expect((await listNotices(store, owner())).map((n) => n.text)).toEqual(['Is it late?']);
    const told = async (id: string) =>
      (await store.pool.query('select 1 from notice where account = $1', [id])).rowCount;
    expect([await told('cleo'), await told('guest'), await told('outside'), await told('ben')]).toEqual([1, 1, 0, 0]);
    await sayComment(store, owner(), planId, { ...said, text: 'By two days.', answers: first });
    expect(await told('ben')).toBe(1);
    // An answer to an answer stands in the same thread.
    const comments = (await listComments(store, owner(), planId))!;
    const answer = comments.find((c) => c.answers === first)!;
    await sayComment(store, ben, planId, { ...said, text: 'Thanks.', answers: answer.id });
    expect((await listComments(store, owner(), planId))!.filter((c) => c.answers === first)).toHaveLength(2);
    await expect(sayComment(store, { ...ben, role: 'viewer' }, planId, { ...said, text: 'x' })).rejects.toThrow('look');
  });

  test('are about an activity that is there, and say when it is not any more', async () => {
    await expect(sayComment(store, owner(), planId, { ...said, ref: 'nothing', text: 'x' })).rejects.toThrow(
      'no activity nothing',
    );
    const { plan, version } = (await readPlan(store, owner(), planId))!;
    const { ref, name } = plan.activities.find((a) => a.kind === 'activity')!;
    await sayComment(store, owner(), planId, { ...said, ref, text: 'Beside it' });
    const beside = async () => (await listComments(store, owner(), planId))!.find((c) => c.ref === ref)!;
    expect((await beside()).activity).toBe(name);
    await changePlan(store, owner(), planId, version, { do: 'removeActivity', ref });
    expect((await beside()).activity).toBeNull();
  });

  test('come in one letter a day, of what was not read', async () => {
    const letters = async (to: string) =>
      (
        await store.pool.query(
          'select subject, text from mail where "to" = $1 and subject like \'%comment%\' order by created_at',
          [`${to}@saltmere.example`],
        )
      ).rows;
    const at = (hours: number) => new Date(Date.now() + hours * 3_600_000);
    await readNotices(store, owner());
    await mailNotices(store, 'https://here', at(1));
    expect(await letters('ada')).toEqual([]);
    expect(await letters('cleo')).toHaveLength(1);
    expect((await letters('cleo'))[0].text).toContain('Is it late?');
    const ben = accessTo((await belongingsOf(store, 'ben'))[0]!, 'ben', 'Ben');
    await sayComment(store, ben, planId, { ...said, text: 'And again', named: ['cleo'] });
    await mailNotices(store, 'https://here', at(5));
    expect(await letters('cleo')).toHaveLength(1);
    await mailNotices(store, 'https://here', at(26));
    const now = await letters('cleo');
    expect(now).toHaveLength(2);
    expect(now[1].text).toContain('And again');
    expect(now[1].text).not.toContain('Is it late?');
  });

  test('are not told to who left, nor kept for them', async () => {
    const dan = await join('dan', 'editor');
    const eve = await join('eve', 'commenter', planId);
    await sayComment(store, owner(), planId, { ...said, text: 'Only for us', named: ['dan', 'eve'] });
    expect((await listNotices(store, dan)).map((n) => n.text)).toContain('Only for us');
    await changeRole(store, owner(), 'eve', { planId, role: null });
    await removeMember(store, owner(), 'dan');
    await mailNotices(store, 'https://here', new Date(Date.now() + 3_600_000));
    const { rows } = await store.pool.query(`select "to" from mail where text like '%Only for us%'`);
    expect(rows).toEqual([]);
    const kept = await store.pool.query('select account from notice where account = $1', ['dan']);
    expect(kept.rows).toEqual([]);
    await removeMember(store, owner(), eve.account!);
  });
});

describe('shared pages', () => {
  let exhibit: string;
  const wish = (more: Partial<SharedWish> = {}): SharedWish => ({
    what: { exhibit },
    lay: 'pages',
    frozen: null,
    expiresAt: null,
    password: null,
    comments: false,
    origins: [],
    ...more,
  });
  beforeEach(async () => {
    exhibit ??= (await createExhibit(store, owner(), planId, 'Shown', { kind: 'timeline' }))!;
  });

  test('have a mark that changes with their plan alone, and never where they are frozen', async () => {
    const live = await openShared(store, await sharePage(store, owner(), planId, wish()), new Date());
    const frozen = await openShared(
      store,
      await sharePage(store, owner(), planId, wish({ frozen: { edition: null } })),
      new Date(),
    );
    const [a, b] = [await markOfShared(store, live!), await markOfShared(store, frozen!)];
    const { version } = (await readPlanHead(store, owner(), otherPlan))!;
    await changePlan(store, owner(), otherPlan, version, { do: 'setPlan', settings: { name: 'Other' } });
    expect(await markOfShared(store, live!)).toBe(a);
    const own = (await readPlanHead(store, owner(), planId))!.version;
    await changePlan(store, owner(), planId, own, { do: 'setPlan', settings: { name: 'Renamed' } });
    expect(await markOfShared(store, live!)).not.toBe(a);
    expect(await markOfShared(store, frozen!)).toBe(b);
  });

  test('with comments follow those too: what is open about the page, and nothing else', async () => {
    const open = async (comments: boolean) =>
      (await openShared(store, await sharePage(store, owner(), planId, wish({ comments })), new Date()))!;
    const [spoken, silent] = [await open(true), await open(false)];
    const marks = async () => [await markOfShared(store, spoken), await markOfShared(store, silent)];
    const texts = async () =>
      (await openCommentsOn(store, [exhibit])).get(exhibit)?.map((c) => [c.text, ...c.answers.map((a) => a.text)]);
    const seen = [await marks()];
    const about = { ref: null, exhibitId: exhibit, answers: null, named: [] };
    const first = (await sayComment(store, owner(), planId, { ...about, text: 'Larger?' }))!;
    seen.push(await marks());
    await sayComment(store, owner(), planId, { ...about, answers: first, text: 'Yes' });
    seen.push(await marks());
    const other = (await sayComment(store, owner(), planId, { ...about, text: 'Bluer?' }))!;
    await sayComment(store, owner(), planId, { ...about, exhibitId: null, text: 'About the plan' });
    expect(await texts()).toEqual([['Larger?', 'Yes'], ['Bluer?']]);
    await endComment(store, owner(), other, true);
    seen.push(await marks());
    await endComment(store, owner(), other, false);
    await endComment(store, owner(), first, true);
    seen.push(await marks());
    expect(await texts()).toEqual([['Bluer?']]);
    expect(new Set(seen.map(([m]) => m)).size).toBe(5);
    expect(new Set(seen.map(([, m]) => m)).size).toBe(1);
  });

  test('are gone when they are ended, have expired, or when what they show is put away', async () => {
    const now = new Date('2026-12-01T10:00:00Z');
    const ended = await sharePage(store, owner(), planId, wish());
    await keepShared(store, ended, 'mark', new Uint8Array([1, 2]));
    expect(await readShared(store, ended)).toEqual(Buffer.from([1, 2]));
    const elsewhere: Access = { workspace: await createWorkspace(store, 'Elsewhere'), person: null, role: 'owner' };
    expect(await revokeShared(store, elsewhere, ended)).toBe(false);
    expect(await revokeShared(store, owner(), ended)).toBe(true);
    expect(await openShared(store, ended, now)).toBeNull();
    expect(await readShared(store, ended)).toBeNull();
    // A page that was being composed meanwhile is not kept any more.
    await keepShared(store, ended, 'mark', new Uint8Array([3]));
    expect(await readShared(store, ended)).toBeNull();
    const short = await sharePage(store, owner(), planId, wish({ expiresAt: new Date('2026-12-01T00:00:00Z') }));
    expect(await openShared(store, short, new Date('2026-11-30T23:59:59Z'))).not.toBeNull();
    expect(await openShared(store, short, new Date('2026-12-01T00:00:00Z'))).toBeNull();
    const last = await sharePage(store, owner(), planId, wish());
    await store.pool.query('update exhibit set deleted_at = now() where id = $1', [exhibit]);
    expect(await openShared(store, last, now)).toBeNull();
    await store.pool.query('update exhibit set deleted_at = null where id = $1', [exhibit]);
    expect((await listShared(store, owner(), planId)).some((s) => s.id === last && !s.hasPassword)).toBe(true);
  });

  test('keep a password as a digest with salt', async () => {
    await sharePage(store, owner(), planId, wish({ password: 'low water' }));
    await sharePage(store, owner(), planId, wish({ password: 'low water' }));
    const { rows } = await store.pool.query('select password from shared_page where password is not null');
    expect(rows).toHaveLength(2);
    expect(rows[0].password).not.toBe(rows[1].password);
    expect(JSON.stringify(rows)).not.toContain('low water');
  });

  test('are not made by who may only look, nor of what is elsewhere', async () => {
    await expect(sharePage(store, { ...owner(), role: 'commenter' }, planId, wish())).rejects.toThrow('look');
    // Nor by way of another plan, for which more is said.
    await expect(sharePage(store, owner(), otherPlan, wish())).rejects.toThrow('no such exhibit');
    const elsewhere: Access = { workspace: await createWorkspace(store, 'Far'), person: null, role: 'owner' };
    await expect(sharePage(store, elsewhere, planId, wish())).rejects.toThrow('no such exhibit');
  });
});

describe('who did what', () => {
  test('is written down for plans, pages and folios; what is done again and again only once in a while', async () => {
    const page = (await createExhibit(store, owner(), planId, 'Noted', { kind: 'timeline' }))!;
    for (let version = 1; version < 4; version++)
      await changeExhibit(store, owner(), page, version, { brief: { level: version } }, (b) => b as object);
    await deleteExhibit(store, owner(), page);
    const plan = await createPlan(store, owner(), saltmere().current('2026-01-12', '2026-09-14'), 'First', []);
    await deletePlan(store, owner(), plan);
    const words = (await listDeeds(store, owner())).map((d) => d.words);
    expect(words.slice(0, 5)).toEqual([
      'put the plan “Saltmere sea wall” away',
      'made the plan “Saltmere sea wall”',
      'put the page “Noted” away',
      'changed the page “Noted”',
      'made the page “Noted”',
    ]);
    expect(
      (await listDeeds(store, owner(), { about: 'plan', words: 'SEA WALL' })).every((d) => d.about === 'plan'),
    ).toBe(true);
    expect(await listDeeds(store, owner(), { words: '%' })).toEqual([]);
  });

  test('a weekly run that waits or begins to fail is told to the owners, and when it is given up', async () => {
    const said: WeeklySaid = WeeklySaid.parse({
      on: true,
      weekday: 4,
      minute: 960,
      zone: 'Europe/London',
      folder: 'planner',
      words: '',
      accept: 'wait',
      folio: null,
      formats: ['pdf'],
      out: 'out',
    });
    await keepWeekly(store, owner(), planId, said, new Date('2026-11-27T10:00:00Z'));
    const system: Access = { workspace, person: null, role: 'owner' };
    const report = (state: 'done' | 'failed' | 'waiting', minutes: number) =>
      reportWeekly(
        store,
        system,
        planId,
        {
          at: new Date(Date.parse('2026-11-27T10:00:00Z') + minutes * 60_000),
          state,
          words: 'There is no file.',
          file: null,
          intakeId: null,
          written: [],
        },
        null,
      );
    const told = async () =>
      (await store.pool.query("select subject from mail where subject like 'The weekly run%' order by created_at")).rows
        .length;
    await report('done', 0);
    expect(await told()).toBe(0);
    await report('waiting', 1);
    expect(await told()).toBe(1);
    for (let k = 0; k < 4; k++) {
      // As when a run is begun: the next one is that of the next week.
      await store.pool.query("update weekly_run set next_at = '2026-12-04T16:00:00Z'");
      await report('failed', 360 + 15 * k);
    }
    expect(await told()).toBe(3);
  });
});

describe('mail', () => {
  test('goes out once, however many processes send; what cannot be sent waits on', async () => {
    await store.pool.query('update mail set sent_at = now()');
    const wish = { email: 'post@saltmere.example', role: 'viewer' as const, planId: null };
    await invite(store, owner(), wish, 'https://here/');
    const refused = await sendMail(store, () => Promise.reject(new Error('the server of mail is away')));
    expect(refused).toEqual({ sent: 0, failed: 'the server of mail is away' });
    const got: string[] = [];
    const send = async (letter: { to: string }) => {
      await new Promise((r) => setTimeout(r, 30));
      got.push(letter.to);
    };
    await Promise.all([sendMail(store, send), sendMail(store, send), sendMail(store, send)]);
    expect(got).toEqual(['post@saltmere.example']);
  });
});

test('limits are counted by all processes together, and forgotten when the right one comes', async () => {
  const [here, there] = [limits(store).password, limits(store).password];
  for (let k = 0; k < 4; k++) {
    expect(await here.take('somebody')).toBeNull();
    expect(await there.take('somebody')).toBeNull();
  }
  expect(await here.take('somebody')).toBeGreaterThan(0);
  expect(await there.take('somebody else')).toBeNull();
  await there.clear('somebody');
  expect(await here.take('somebody')).toBeNull();
});
