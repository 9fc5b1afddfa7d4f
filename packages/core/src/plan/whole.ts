import type { BuildElement } from '../build/element';
import type { Plan } from './schema';

/** A plan with all that belongs to it: what is put into one file, and taken out of it elsewhere. */
export interface WholePlan {
  /** The latest first; one of them is the working edition. */
  editions: WholeEdition[];
  exhibits: { name: string; brief: Record<string, unknown> }[];
  sources: WholeSource[];
  /** Folios all of whose pages are of the plan; they speak of it and of its exhibits as {@link withFolioIds} says. */
  folios: { name: string; content: Record<string, unknown> }[];
  /** What is built, by the models that belong to the plan. */
  models: WholeModel[];
}

/** A model as it was read. */
export interface WholeModel {
  key: string;
  file: string;
  elements: BuildElement[];
  /** Its bodies, packed. */
  geometry: Uint8Array;
  assigned: { activity: string; name: string; elements: string[] }[];
  notes: string[];
}

export interface WholeEdition {
  /** What briefs call it that compare with it. */
  id: string;
  name: string;
  note: string;
  working: boolean;
  /** What the plan is measured against. */
  baseline: boolean;
  /** When it was kept, in milliseconds since 1970. */
  createdAt: number;
  plan: Plan;
  /** Number of the source and row in it, by reference. */
  rows: Record<string, readonly [source: number, row: number]>;
}

export interface WholeSource {
  no: number;
  /** Tables that were taken in together have the same number. */
  reading: number;
  name: string;
  sheet: string | null;
  map: unknown;
  aliases: Record<string, string>;
  problems: unknown[];
  /** Who took it in; null where nobody is told apart. */
  person: string | null;
  createdAt: number;
  /** The table as it was read, packed; null for what was no table. */
  content: Uint8Array | null;
}

/** A brief that speaks of editions by other ids. */
export function withEditionIds<T>(brief: T, ids: ReadonlyMap<string, string>): T {
  if (typeof brief === 'string') return (ids.get(brief) ?? brief) as T;
  if (Array.isArray(brief)) return brief.map((part) => withEditionIds(part, ids)) as T;
  if (typeof brief !== 'object' || brief === null) return brief;
  return Object.fromEntries(Object.entries(brief).map(([key, part]) => [key, withEditionIds(part, ids)])) as T;
}

/** The plan that a file holds, as its folios call it, and its exhibits, by their number in the file from 0. */
export const PLAN_OF_FILE = '00000000-0000-4000-9000-000000000000';
export const exhibitOfFile = (k: number): string => `00000000-0000-4000-8000-${k.toString(16).padStart(12, '0')}`;

/**
 * The content of a folio that speaks of exhibits and plans by other ids; null where it has no pages, or one of them is
 * of an exhibit that has no other id.
 */
export function withFolioIds(
  content: Readonly<Record<string, unknown>>,
  exhibits: ReadonlyMap<string, string>,
  plan: { from: string; to: string },
): Record<string, unknown> | null {
  const list = (said: unknown) => (Array.isArray(said) ? (said as Record<string, unknown>[]) : []);
  const pages = list(content.pages).map((p) => ({ ...p, exhibit: exhibits.get(String(p.exhibit)) }));
  if (pages.length === 0 || pages.some((p) => p.exhibit === undefined)) return null;
  const blocks = list(content.blocks).map((b) => (b.plan === plan.from ? { ...b, plan: plan.to } : b));
  return { ...content, pages, blocks: Array.isArray(content.blocks) ? blocks : null };
}
