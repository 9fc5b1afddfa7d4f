import { createHash } from 'node:crypto';
import { ColumnMap, type IntakePreview, usedParts } from '@clembo/formats';
import {
  askWeekly,
  Choices,
  dateIn,
  deleteIntake,
  type Folders,
  FolderTrouble,
  foldersBelow,
  holdIntakeFiles,
  IntakeGone,
  keepChoices,
  lastSources,
  PlanRefused,
  readIntake,
  readPreview,
  readWeekly,
  reportWeekly,
  timeIn,
  VersionPassed,
  type WeeklyReport,
  type WeeklySaid,
  type WeeklyState,
} from '@clembo/store';
import { JobRefused, type Outcome, type Room } from '../room';
import { readIntakeJob } from './readIntake';
import { compareIntake, refreshPlanJob } from './refresh';
import { writeFolioJob } from './writeFolio';

/** Where more than this share of the activities would go, it may be the wrong file. */
const GONE = 0.2;
const GONE_LEAST = 5;

interface Taken {
  words: string;
  /** What a person has to look at before anything is changed. */
  waitsFor: string | null;
  intake: string;
}

const counted = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;

/**
 * Does what a plan does every week: takes the newest file of a folder, accepts what may be accepted or waits for a
 * person, and writes the folio. How it went is remembered, also when it fails; nothing is left half done.
 */
export async function weeklyRunJob(
  room: Room,
  planId: string,
  folders: Folders = foldersBelow(process.env.CLEMBO_FOLDERS),
  now: () => Date = () => new Date(),
): Promise<Outcome> {
  const { store, access } = room;
  const weekly = await readWeekly(store, access, planId);
  if (!weekly) throw new JobRefused('This plan has no weekly run (any more).');
  const { said, lastFile, reports } = weekly;
  const end = async (
    state: WeeklyState,
    words: string,
    more: Partial<WeeklyReport> = {},
    hash: string | null = null,
  ): Promise<Outcome> => {
    const report = { at: now(), state, words, file: null, intakeId: null, written: [], ...more };
    const again = await reportWeekly(store, access, planId, report, hash);
    const soon = again ? ` It is tried again at ${timeIn(said.zone, again)}.` : '';
    return { result: { state, words: words + soon, ...more } };
  };
  let file: string | null = null;
  /** What is in the plan by now, also if the rest fails. */
  let inPlan: { hash: string; words: string } | null = null;
  try {
    room.step('Looking for the newest file', 0.05);
    const found = await folders.newest(said.folder, said.words);
    if (!found) {
      const which = said.words === '' ? 'no file' : `no file with “${said.words}” in its name`;
      throw new FolderTrouble(`There is ${which} in the folder “${said.folder}”.`);
    }
    file = found.name;
    const bytes = await found.bytes();
    const hash = createHash('sha256').update(bytes).digest('hex');
    const isNew = hash !== lastFile;
    const [last] = reports;
    if (!isNew && last?.state === 'waiting' && last.intakeId && (await isOpen(room, last.intakeId)))
      return await end('waiting', last.words, { file, intakeId: last.intakeId });
    const taken = isNew ? await take(room, planId, file, bytes, said) : null;
    if (taken?.waitsFor) return await end('waiting', taken.waitsFor, { file, intakeId: taken.intake }, hash);
    if (taken) inPlan = { hash, words: `${taken.words} ` };
    const written = await writeAll(room, said, folders, now());
    const pages = written.length === 0 ? '' : ` ${counted(written.length, 'file', 'files')} written.`;
    return taken
      ? await end('done', `${taken.words}${pages}`, { file, written }, hash)
      : await end('nothing', `Nothing new: ${file} was taken before.${pages}`, { file, written });
  } catch (error) {
    // What is cancelled ends without a report; a fault of the program has one once it is not tried again (below).
    const known = [JobRefused, FolderTrouble, PlanRefused, VersionPassed, IntakeGone];
    if (!known.some((kind) => error instanceof kind)) throw error;
    return end('failed', `${inPlan?.words ?? ''}${(error as Error).message}`, { file }, inPlan?.hash ?? null);
  }
}

/** A run that the program itself could not do has its report and its mail like any other that failed. */
export async function weeklyFault(
  { store, access }: Pick<Room, 'store' | 'access'>,
  planId: string,
  at: Date,
): Promise<void> {
  const words =
    'Something went wrong in Clembo itself; those who run it find it in its log. What was in the plan before stands as it was.';
  await reportWeekly(
    store,
    access,
    planId,
    { at, state: 'failed', words, file: null, intakeId: null, written: [] },
    null,
  );
}

/** What the columns of a table are read as, to be compared with those of last time. */
const columnsOf = (map: unknown): string => {
  const read = ColumnMap.safeParse(map);
  return read.success ? JSON.stringify([read.data.headings, read.data.columns]) : '';
};

const isOpen = async ({ store, access }: Room, intake: string): Promise<boolean> => {
  const own = await readIntake(store, access, intake);
  return own !== null && own.planId === null;
};

/** Takes a file into a plan as far as nobody has to be asked. */
async function take(
  room: Room,
  planId: string,
  name: string,
  content: Uint8Array,
  { accept }: WeeklySaid,
): Promise<Taken> {
  const { store, access } = room;
  // The intake is not what this job is about: it ends, and the job goes on.
  const inner: Room = { ...room, job: null };
  const intake = await holdIntakeFiles(store, access, [{ name, content }], planId);
  try {
    await readIntakeJob(inner, intake);
    const { problemCount, state } = (await readPreview(store, access, intake))!.preview as IntakePreview;
    const parts = usedParts(state);
    const before = new Set((await lastSources(store, access, planId)).map(({ map }) => columnsOf(map)));
    const compared = await compareIntake(inner, intake);
    if ('done' in compared) return { words: 'It was taken in meanwhile.', waitsFor: null, intake };
    const { changes, alike, doubtful, version, current, choices } = compared;
    const gone = changes.filter((c) => c.kind === 'removed').length;
    const isWrongFile = gone >= GONE_LEAST && gone > GONE * current.activities.length;
    const changed = counted(changes.length, 'change', 'changes');
    const questions = [
      problemCount > 0 && `${counted(problemCount, 'cell', 'cells')} of ${name} cannot be read`,
      parts.some((p) => p.map.dateOrder === null) && `dates of ${name} leave open whether day or month comes first`,
      !parts.every((p) => p.from !== 'guess' || before.has(columnsOf(p.map))) &&
        `the columns of ${name} are not those of last time, and are guessed`,
      alike.length > 0 && `${counted(alike.length, 'row', 'rows')} may be known under another reference`,
      doubtful.length > 0 && `${counted(doubtful.length, 'reference is', 'references are')} in doubt`,
      isWrongFile && `${gone} of ${current.activities.length} activities are gone: is it the right file?`,
    ].filter((q) => q !== false);
    const open = questions.join('; ');
    if (open !== '')
      return {
        words: '',
        waitsFor: `${open[0]!.toUpperCase()}${open.slice(1)}${open.endsWith('?') ? '' : '.'}`,
        intake,
      };
    if (accept === 'wait') return { words: '', waitsFor: `${changed} in ${name} to be looked at.`, intake };
    const byHand = changes.filter((c) => c.byHand.length > 0);
    const left = changes.filter((c) => c.byHand.length > 0 || (accept !== 'all' && !accept.includes(c.kind as never)));
    await keepChoices(store, access, intake, Choices.parse({ ...choices, refused: left.map((c) => c.id) }));
    await refreshPlanJob(inner, intake, version);
    const taken = counted(changes.length - left.length, 'change', 'changes');
    const hand = byHand.length === 0 ? '' : `, ${byHand.length} of them since they were changed here by hand`;
    const rest = left.length === 0 ? '' : ` ${left.length} left as they were${hand}.`;
    return { words: `${taken} of ${name} taken.${rest}`, waitsFor: null, intake };
  } catch (error) {
    await deleteIntake(store, access, intake).catch(() => {});
    throw error;
  }
}

/** Writes the folio of a weekly run in its formats, under one name each week. */
async function writeAll(room: Room, said: WeeklySaid, folders: Folders, now: Date): Promise<string[]> {
  const { folio, formats, out, zone } = said;
  if (folio === null) return [];
  const day = dateIn(zone, now);
  const written: string[] = [];
  for (const [k, format] of formats.entries()) {
    room.step(`Writing the folio as ${format.toUpperCase()}`, 0.5 + (0.45 * k) / formats.length);
    const { result, file } = await writeFolioJob(room, folio, format);
    const name = (result as { file: string }).file.replace(/(\.\w+)$/, ` ${day}$1`);
    written.push(await folders.write(out, name, file!));
  }
  return written;
}

/** Goes on with a weekly run that waited for an intake, once a person has decided of it. */
export async function goOnWeekly({ store, access }: Room, planId: string, intake: string): Promise<void> {
  const [last] = (await readWeekly(store, access, planId))?.reports ?? [];
  if (last?.state === 'waiting' && last.intakeId === intake) await askWeekly(store, access, planId);
}
