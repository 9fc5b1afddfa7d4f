import { BuildElement, GeometryRefused, unpackGeometry, withEditionIds, type WholePlan } from '@clembo/core';
import { strFromU8, strToU8, type Zippable, zipSync } from 'fflate';
import { z } from 'zod';
import { readPlanJson, writePlanJson } from '../json/planJson';
import { UnreadableFile } from '../table/table';
import { ArchiveDamaged, readDirectory, unpackEntry } from '../zip/archive';

/** The first entry of the archive, by which the file is known; it says what the others are. */
const CONTENTS = 'clembo.json';
/** What all entries together may unpack to. */
const MOST_BYTES = 600 * 1_048_576;
const MOST_ENTRIES = 5000;
/** Archives have no dates before this one; the same plan gives the same bytes. */
const NO_DATE = new Date(1980, 0, 1);

const Place = z.tuple([z.int().min(1), z.int().min(0)]);
const Time = z.number().min(0).max(8.64e15);
const Contents = z.object({
  format: z.literal('clembo-bundle'),
  version: z.literal(1),
  editions: z
    .array(
      z.object({
        file: z.string().max(200),
        name: z.string().max(300),
        note: z.string().max(10_000),
        working: z.boolean(),
        baseline: z.boolean(),
        createdAt: Time,
        rows: z.record(z.string().max(200), Place),
      }),
    )
    .min(1)
    .max(1000),
  exhibits: z.array(z.object({ name: z.string().min(1).max(200), brief: z.record(z.string(), z.unknown()) })).max(1000),
  sources: z
    .array(
      z.object({
        no: z.int().min(1),
        reading: z.int().min(1),
        name: z.string().max(500),
        sheet: z.string().max(200).nullable(),
        map: z.unknown(),
        aliases: z.record(z.string(), z.string()),
        problems: z.array(z.unknown()).max(10_000),
        person: z.string().max(300).nullable(),
        createdAt: Time,
        file: z.string().max(200).nullable(),
      }),
    )
    .max(1000),
  folios: z
    .array(z.object({ name: z.string().min(1).max(200), content: z.record(z.string(), z.unknown()) }))
    .max(1000)
    .default([]),
  models: z
    .array(
      z.object({
        key: z.string().min(1).max(60),
        name: z.string().max(500),
        elements: z.string().max(200),
        bodies: z.string().max(200),
      }),
    )
    .max(20)
    .default([]),
});

/** What is known of a model beside its bodies. */
const ModelFile = z.object({
  elements: z.array(BuildElement).max(200_000),
  assigned: z.array(z.object({ activity: z.string(), name: z.string(), elements: z.array(z.string()) })).max(200_000),
  notes: z.array(z.string().max(2000)).max(200_000),
});

const editionName = (k: number): string => `edition ${k + 1}`;

/** A plan with its editions, exhibits, folios, books, sources and models as one file. */
export function writeBundle({ editions, exhibits, folios, sources, models }: WholePlan): Uint8Array {
  const ids = new Map(editions.map((e, k) => [e.id, editionName(k)]));
  const files: Zippable = {};
  const contents: z.input<typeof Contents> = {
    format: 'clembo-bundle',
    version: 1,
    editions: editions.map(({ plan, id: _, rows, ...about }, k) => {
      const file = `editions/${k + 1}.json`;
      files[file] = strToU8(writePlanJson(plan));
      return {
        file,
        ...about,
        rows: Object.fromEntries(Object.entries(rows).map(([ref, [no, row]]) => [ref, [no, row]])),
      };
    }),
    exhibits: exhibits.map(({ name, brief }) => ({ name, brief: withEditionIds(brief, ids) })),
    folios,
    sources: sources.map(({ content, ...about }) => {
      const file = content ? `sources/${about.no}.table` : null;
      if (file) files[file] = content!;
      return { ...about, file };
    }),
    models: models.map(({ key, file: name, geometry, ...rest }, k) => {
      const [elements, bodies] = [`models/${k + 1}.json`, `models/${k + 1}.bodies`];
      files[elements] = strToU8(JSON.stringify(rest));
      files[bodies] = geometry;
      return { key, name, elements, bodies };
    }),
  };
  return zipSync(
    { [CONTENTS]: strToU8(`${JSON.stringify(contents, null, 1)}\n`), ...files },
    { level: 6, mtime: NO_DATE },
  );
}

/** True when a file begins as a bundle does. */
export function looksLikeBundle(bytes: Uint8Array): boolean {
  return bytes.length > 41 && bytes[0] === 0x50 && bytes[1] === 0x4b && strFromU8(bytes.subarray(30, 41)) === CONTENTS;
}

/**
 * Reads a plan with all that belongs to it.
 *
 * @throws UnreadableFile with what is wrong, and in which entry
 */
export function readBundle(bytes: Uint8Array, source: string): WholePlan {
  const entry = opened(bytes, source);
  const json = (name: string): unknown => {
    try {
      return JSON.parse(strFromU8(entry(name)));
    } catch (error) {
      if (error instanceof UnreadableFile) throw error;
      throw new UnreadableFile(`${source}, ${name}: it is not JSON. The file is damaged; have it sent again.`);
    }
  };
  const found = Contents.safeParse(json(CONTENTS));
  if (!found.success) {
    const [issue] = found.error.issues;
    throw new UnreadableFile(
      `${source}, ${CONTENTS}: ${issue!.path.join('.') || 'the contents'}: ${issue!.message}. It was written by another version, or is damaged.`,
    );
  }
  const { editions, exhibits, folios, sources, models } = found.data;
  if (editions.filter((e) => e.working).length !== 1)
    throw new UnreadableFile(`${source}, ${CONTENTS}: exactly one edition is the working one; it is damaged.`);
  return {
    editions: editions.map(({ file, ...about }, k) => ({
      ...about,
      id: editionName(k),
      plan: planIn(entry(file), `${source}, ${file}`),
    })),
    exhibits,
    folios,
    sources: sources.map(({ file, map, ...about }) => ({
      ...about,
      map: map ?? null,
      content: file === null ? null : entry(file),
    })),
    models: models.map(({ key, name, elements, bodies }) => ({
      key,
      file: name,
      geometry: bodiesIn(entry(bodies), `${source}, ${bodies}`),
      ...modelIn(json(elements), `${source}, ${elements}`),
    })),
  };
}

function modelIn(said: unknown, source: string) {
  const read = ModelFile.safeParse(said);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  throw new UnreadableFile(`${source}: ${issue!.path.join('.')}: ${issue!.message}. The file is damaged.`);
}

function bodiesIn(bytes: Uint8Array, source: string): Uint8Array {
  try {
    unpackGeometry(bytes);
    return bytes;
  } catch (error) {
    if (!(error instanceof GeometryRefused)) throw error;
    throw new UnreadableFile(`${source}: ${error.message} The file is damaged; have it sent again.`);
  }
}

function planIn(bytes: Uint8Array, source: string) {
  const { plan, problems } = readPlanJson(strFromU8(bytes), source);
  const [problem] = problems;
  if (problem) throw new UnreadableFile(`${problem.source}: “${problem.value}” cannot be used (${problem.detail}).`);
  return plan;
}

/** Entries of the archive by name; what they unpack to is counted. */
function opened(bytes: Uint8Array, source: string): (name: string) => Uint8Array {
  const damaged = () => new UnreadableFile(`${source} is damaged. Have it sent or written again.`);
  let left = MOST_BYTES;
  try {
    const directory = readDirectory(bytes);
    if (directory.length > MOST_ENTRIES) throw damaged();
    const entries = new Map(directory.map((e) => [e.name, e]));
    return (name) => {
      const entry = entries.get(name);
      if (!entry)
        throw new UnreadableFile(`${source} does not hold ${name}, which it says it does. Have it sent again.`);
      try {
        const data = unpackEntry(bytes, entry, left);
        if (data === null)
          throw new UnreadableFile(
            `${source} unpacks to more than ${MOST_BYTES / 1_048_576} MB; no plan is that large.`,
          );
        left -= data.length;
        return data;
      } catch (error) {
        throw error instanceof ArchiveDamaged ? damaged() : error;
      }
    };
  } catch (error) {
    throw error instanceof ArchiveDamaged ? damaged() : error;
  }
}
