import { z } from 'zod';

/** What a building element can be measured by, in metres. */
export const MEASURES = ['length', 'area', 'volume'] as const;
export type ElementMeasure = (typeof MEASURES)[number];

const Amount = z.number().min(0).max(1e12).nullable();
const Text = (most: number) => z.string().max(most);

/** A part of a building or a site as its model describes it (ISO 16739-1: an element, its type, storey, properties). */
export const BuildElement = z.object({
  /** The model's own unique identifier, behind the key of the model: `station/2O2Fr$t4X7Zf8NOew3FNr`. */
  ref: z.string().min(3).max(200),
  name: Text(300),
  /** What it is, in one word: `Wall`, `Window`. */
  class: Text(100),
  /** The type that it is one of: `Wall, timber frame 140`. */
  type: Text(300),
  storey: Text(200),
  /** Values by `Set: Property`. */
  properties: z.record(z.string().max(200), z.string().max(500)),
  /** References to classification systems: `B2010 Exterior Walls`. */
  classifications: z.array(Text(200)).max(50),
  length: Amount,
  area: Amount,
  volume: Amount,
});
export type BuildElement = z.infer<typeof BuildElement>;

/** Elements and activities are matched many to many: work builds an element, removes it, or it stands for that while. */
export const EFFECTS = ['builds', 'removes', 'stands'] as const;
export type Effect = (typeof EFFECTS)[number];

const Elements = z.array(z.string().min(3).max(200)).min(1).max(200_000);

/** What one activity does to elements. */
export const ElementMatch = z.object({
  activity: z.string().min(1).max(200),
  effect: z.enum(EFFECTS),
  elements: Elements,
});
export type ElementMatch = z.infer<typeof ElementMatch>;

/** Elements that have a value of a code field. */
export const ElementCode = z.object({
  field: z.string().min(1).max(100),
  code: z.string().min(1).max(300),
  elements: Elements,
});
export type ElementCode = z.infer<typeof ElementCode>;

/** An element with everything that is not said left open. */
export const makeElement = (said: Partial<BuildElement> & Pick<BuildElement, 'ref'>): BuildElement => ({
  name: '',
  class: '',
  type: '',
  storey: '',
  properties: {},
  classifications: [],
  length: null,
  area: null,
  volume: null,
  ...said,
});

/** The key of the model that an element is of. */
export const modelOf = (ref: string): string => ref.slice(0, Math.max(0, ref.indexOf('/')));
/** The identifier that an element has in its model. */
export const identifierOf = (ref: string): string => ref.slice(ref.indexOf('/') + 1);
