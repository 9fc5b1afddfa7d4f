import {
  type LineMove,
  type Arrangement,
  type CalendarSpec,
  carried,
  type CodeField,
  type Command,
  type Condition,
  conditionWords,
  duplicated,
  isMilestone,
  LivePlan,
  type MatchRule,
  type Looking,
  type PackedPlan,
  type PastedCodes,
  type Plan,
  type PlanPicture,
  readPastedCodes,
  type Resource,
  type RoundedTo,
  type RowPlace,
  schedulePlan,
  type SelectField,
  type Test,
  unpackPlan,
  worklist,
  statusEnd,
  type PromiseOffer,
  promiseOffer,
} from '@clembo/core';
import { writeSvg } from '@clembo/render/svg';
import {
  type BlindSpots,
  blindWords,
  type Brief,
  composeExhibit,
  type ContentTable,
  createMeasure,
  EXHIBITS,
  type ExhibitName,
  type Fit,
  type FontMetrics,
  type CardHandles,
  type PlaneShape,
  type Handles,
  MOST_EDITIONS,
  type PlanFacts,
  planFacts,
  PROMISED,
  type Promised,
  type Ready,
  readyMade,
  type HandoffsBrief,
  type LinearBrief,
  readyBuilds,
  readyLines,
  readyNetworks,
  type TypedProcess,
  typedFromPlan,
  readyTimelines,
  type Regrouping,
  regroupings,
  type Scene,
} from '@clembo/scene';
import metrics from '@clembo/scene/metrics.json';
import { amountWords, localeOfPage } from '@clembo/formats/amounts';
import { type Effect, type Event, next, opened, type State } from '@clembo/sync';
import { expose } from 'comlink';
import { type BalancedLine, balancedLine, type Balancing } from './answers/balance';
import { type About, type AboutField, aboutOf, type EditionFacts, editionWords } from './answers/about';
import { type Book, booksOf, codeTexts, type FillPreview, fillCommand, previewFill } from './answers/books';
import { type Checks, checksOf } from './answers/checks';
import { type Consequences, consequencesOf, type WouldBar } from './answers/consequences';
import { type Dragging, dragged, withFollowers } from './answers/dragging';
import { type Drawing, drawn, milestoneBehind } from './answers/drawn';
import { type CameFrom, type Facts, factsOf } from './answers/facts';
import { type FoundCell, type FoundCells, foundCells, likeTest, replacedCells } from './answers/finding';
import { type FrontAsked, type FrontPages, frontPages } from './answers/front';
import type { Held } from './answers/held';
import {
  addedRows,
  type DayMeant,
  dayMeant,
  lengthMeant,
  editText,
  type LedgerShape,
  type Sight,
  type LedgerShown,
  LedgerView,
  type Strip,
  type Tone,
  typedCells,
  type WrongCell,
} from './answers/ledger';
import {
  type AmountShown,
  type Behind,
  type ComingShown,
  type PartShown,
  type SlipShown,
  type Measuring,
  type RowsShown,
  rowsBehind,
  type StandingShown,
  standingShown,
} from './answers/measure';
import {
  applied,
  type LineAsked,
  type LineMoving,
  type LineProposal,
  type LineWork,
  lengthsByRates,
  lineMoving,
  lineProposal,
  lineWorkOf,
} from './answers/lineMoves';
import { type Neighbour, type Neighbours, neighboursOf } from './answers/neighbours';
import { calendarUse, putCalendar, withoutCalendar } from './answers/calendars';
import {
  assigned,
  type NeedShown,
  type NeedsShown,
  needsShown,
  putResource,
  shapedAssignment,
  type Step,
  withoutResource,
} from './answers/resources';
import {
  type EditionRow,
  type EditionsAsked,
  type EditionsShown,
  editionsShown,
  type MoverShown,
} from './answers/editions';
import {
  type RoundField,
  type RoundRow,
  type RoundShown,
  roundShown,
  type RoundWould,
  roundWould,
} from './answers/round';
import { type Repeated, repeated, type Repeating } from './answers/repeated';
import { type SketchedRow, sketchedRows } from './answers/sketched';
import {
  assignedCommand,
  type CodedElements,
  codedElements,
  type ElementsFacts,
  elementCells,
  elementsFacts,
  elementsOfWork,
  elementsWhere,
  elementTexts,
  fetchModels,
  type MatchingShown,
  matchingShown,
  type ModelBook,
  modelFile,
  type ModelOut,
  type RuleShown,
  rulesCommand,
  rulesShown,
  type StandingAsked,
  type StandingShown as ModelStandingShown,
  standingShown as modelStandingShown,
} from './answers/models';
import { type Suggestion, suggestionsFor } from './answers/suggestions';
import { type AlikeRow, alikeRows, mendingCommand, type WorkShown, workShown } from './answers/work';

export type { Balancing, TradeShown } from './answers/balance';
export type {
  CodedElements,
  ConflictShown,
  ElementsFacts,
  KindCard,
  MatchingShown,
  ModelBook,
  ModelEntry,
  ModelOut,
  PairingOffer,
  RuleShown,
  StandingAsked,
  StandingShown as ModelStandingShown,
  WorkCard,
} from './answers/models';
export type { Repeated, Repeating } from './answers/repeated';
export type { LineAsked, LineMoving, LineProposal, LineWork } from './answers/lineMoves';
export type {
  RoundField,
  EditionRow,
  EditionsAsked,
  EditionsShown,
  MoverShown,
  RoundRow,
  RoundShown,
  RoundWould,
  AmountShown,
  ComingShown,
  PartShown,
  SlipShown,
  Behind,
  Measuring,
  RowsShown,
  StandingShown,
  DayMeant,
  NeedShown,
  NeedsShown,
  Step,
  Dragging,
  FoundCell,
  FoundCells,
  About,
  AboutField,
  EditionFacts,
  Consequences,
  WouldBar,
  Neighbour,
  Neighbours,
  Suggestion,
  AlikeRow,
  Book,
  Drawing,
  Checks,
  Facts,
  FillPreview,
  SketchedRow,
  LedgerShape,
  LedgerShown,
  Sight,
  Strip,
  Tone,
  WrongCell,
  WorkShown,
};

/** What the interface needs to know of a plan without holding its activities. */
export type PlanHead = Omit<Plan, 'activities' | 'links' | 'pictures' | 'matches' | 'elementCodes'> & {
  /** What can be asked of elements, once the models of the plan are loaded. */
  elementFields?: readonly SelectField[];
  edition: string;
  /** Whose notation numbers are written in (BCP 47). */
  locale: string;
  version: number;
  /** Editions that were kept, the oldest last. */
  editions: { id: string; name: string }[];
  levels: number;
  activityCount: number;
  milestones: { ref: string; name: string }[];
};

export interface ComposedPage {
  svg: string;
  title: string;
  fit: Fit;
  /** What the page hides, with that in words; null where it hides nothing. */
  blind: (BlindSpots & { words: string }) | null;
  content: ContentTable;
  undated: { ref: string; name: string }[];
  width: number;
  height: number;
  /** Which page it is of how many. */
  sheet: { number: number; of: number };
  /** Where its things, lanes and dates are, on pages that can be set by hand. */
  handles: Handles | null;
  /** Its cards and links, on pages made of those. */
  cards: CardHandles | null;
  /** Where places and days lie on it, on pages of linear work. */
  plane: PlaneShape | null;
}

/** What would have to move, and the page as it would be; null where nothing would. */
export interface BalanceShown extends BalancedLine {
  page: ComposedPage | null;
}

interface PlanBody {
  plan: Plan;
  edition: string;
  editions: { id: string; name: string; working: boolean; baseline: boolean }[];
  locale: string;
  version: number;
  sources: CameFrom['sources'];
  rows: CameFrom['rows'];
}

async function fetchPlan(planId: string, edition?: string): Promise<PlanBody> {
  const response = await fetch(`/api/plans/${planId}?form=columns${edition ? `&edition=${edition}` : ''}`);
  if (!response.ok) {
    const { error } = (await response.json().catch(() => ({}))) as { error?: string };
    throw new Error(error ?? 'The plan could not be loaded.');
  }
  const body = (await new Response(response.body!.pipeThrough(new DecompressionStream('gzip'))).json()) as Omit<
    PlanBody,
    'plan' | 'rows'
  > & {
    plan: Omit<Plan, 'activities' | 'links'>;
    columns: Pick<PackedPlan, 'activities' | 'links'> & { places: Places | null };
  };
  const { plan, columns, ...rest } = body;
  const { places, ...packed } = columns;
  const read = unpackPlan({ ...plan, ...packed });
  return { ...rest, rows: rowsOf(read, places), plan: read };
}

/** Where the activities of a plan come from, in their order: number of the source and row. */
interface Places {
  sources: (number | null)[];
  rows: (number | null)[];
}

/** The same by reference; found when it is first asked for. */
function rowsOf({ activities }: Plan, places: Places | null): CameFrom['rows'] {
  let found: Map<string, [number, number]> | null = null;
  return () => {
    found ??= new Map(
      activities.flatMap(({ ref }, k): [string, [number, number]][] => {
        const row = places?.rows[k] ?? null;
        return row === null ? [] : [[ref, [places?.sources[k] ?? 1, row]]];
      }),
    );
    return found;
  };
}

/** What came of an event: the head where another plan is shown, and what is to be done. */
export interface Taken {
  version: number;
  head: PlanHead | null;
  effects: Effect[];
}

const asSvg = (scene: Scene): string =>
  writeSvg(scene, { fonts: metrics as FontMetrics, references: true, sized: false });

/** Holds a plan in the browser, schedules it once, and answers what screens ask of it, off the main thread. */
export class PlanRoom {
  private planId = '';
  private live: LivePlan | null = null;
  /** The plan as it is kept, and what is shown on top of it; the schedule is of what is shown. */
  private sync!: State;
  private view: LedgerView | null = null;
  /** What the view was made of; null where the plan has changed since. */
  private viewOf: string | null = null;
  /** How the ledger was arranged last, and whether that was asked for since the plan changed. */
  private arranged: [Arrangement, string[]] | null = null;
  private looked = false;
  private edition = '';
  private locale = 'en-GB';
  private from: CameFrom = { sources: [], rows: () => new Map() };
  private promisedId: string | null = null;
  private editions: PlanHead['editions'] = [];
  /** Kept editions by id, fetched and scheduled when they are first compared with. */
  private readonly kept = new Map<string, Promise<Promised>>();
  /** The models of the plan, fetched when they are first looked at. */
  private models: Promise<ModelBook> | null = null;
  private fields: SelectField[] | null = null;
  private readonly measure = createMeasure(metrics as FontMetrics);

  async open(planId: string): Promise<PlanHead> {
    const { plan, edition, editions, locale, version, sources, rows } = await fetchPlan(planId);
    this.planId = planId;
    this.live = new LivePlan(plan);
    this.sync = opened(plan, version);
    this.edition = edition;
    this.locale = locale;
    this.from = { sources, rows };
    this.promisedId = editions.find((e) => e.baseline)?.id ?? null;
    this.editions = editions.filter((e) => !e.working).map(({ id, name }) => ({ id, name }));
    return this.head();
  }

  /** What becomes of the plan, and what is to be done, as something is asked for or comes from the server. */
  take(event: Event): Taken {
    const { state, effects, touched } = next(this.sync, event);
    const isOther = state.shown !== this.sync.shown;
    this.sync = state;
    if (isOther) this.livePlan.become(state.shown, touched);
    return { version: state.version, head: isOther ? this.head() : null, effects };
  }

  private head(): PlanHead {
    this.viewAgain();
    const { plan, schedule } = this.held;
    const { activities, links: _, pictures: __, matches: ___, elementCodes: ____, ...head } = plan;
    return {
      ...head,
      ...(this.fields ? { elementFields: this.fields } : {}),
      edition: this.edition,
      locale: this.locale,
      version: this.sync.version,
      editions: this.editions,
      levels: schedule.outline.level.reduce((a, b) => Math.max(a, b), 1),
      activityCount: activities.length,
      milestones: activities.filter((a) => isMilestone(a.kind)).map(({ ref, name }) => ({ ref, name: name || ref })),
    };
  }

  private get livePlan(): LivePlan {
    if (!this.live) throw new Error('no plan is open');
    return this.live;
  }

  private get held(): Held {
    const { plan, schedule } = this.livePlan;
    return { plan, schedule };
  }

  /** With the findings of the schedule as it stands. */
  private get checked(): Held {
    this.livePlan.refreshFindings();
    return this.held;
  }

  /** A kept edition, or null where there is none by that name. */
  private async keptEdition(compare: string | null): Promise<Promised | null> {
    const edition = this.editions.find((e) => e.id === (compare === PROMISED ? this.promisedId : compare));
    if (!edition) return null;
    let kept = this.kept.get(edition.id);
    if (!kept) {
      kept = fetchPlan(this.planId, edition.id).then(({ plan }) => ({
        plan,
        schedule: schedulePlan(plan),
        name: edition.name,
      }));
      this.kept.set(edition.id, kept);
      kept.catch(() => this.kept.delete(edition.id));
    }
    return kept;
  }

  /** What the promise could give to activities without dates; null where that is nothing. */
  async promiseOffer(): Promise<PromiseOffer | null> {
    const { plan, schedule } = this.held;
    return promiseOffer(plan, schedule, await this.keptEdition(PROMISED));
  }

  suggest(kind: ExhibitName): Brief {
    return EXHIBITS[kind].suggest(this.held.plan, this.held.schedule, this.editions.length);
  }

  /** Briefs for questions that are asked often, in the fields of this plan. */
  readyMade(): Ready[] {
    const { plan, schedule } = this.held;
    const editions = this.editions.map((e) => ({ ...e, baseline: e.id === this.promisedId }));
    return [
      ...readyTimelines(plan, schedule, editions),
      ...readyNetworks(plan, schedule),
      ...readyLines(plan, editions.length),
      ...readyBuilds(plan, editions.length),
      ...(editions.length > 0 ? readyMade(plan) : []),
    ];
  }

  /** What the plan has to say for a page of handoffs, as steps that can be typed on. */
  typedSteps(brief: HandoffsBrief): TypedProcess & { left: number } {
    return typedFromPlan(this.held.plan, this.held.schedule, brief);
  }

  /** The lengths that their rates give to the works of a line, up to whole days or weeks; null where none would change. */
  lengthsByRates(line: string, to: RoundedTo): Command | null {
    return lengthsByRates(this.held, line, to);
  }

  /** The pictures along the lines; they are large, and asked for only where they are looked at. */
  pictures(): PlanPicture[] {
    return this.held.plan.pictures;
  }

  /** How many activities have their places on a line. */
  worksOn(line: string): number {
    const { activities, lines } = this.held.plan;
    return activities.filter((a) => (a.from !== null || a.to !== null) && (a.line ?? lines[0]?.id) === line).length;
  }

  /** Where the works of a page would run to keep what is asked for from each other, and the page as it would be. */
  async balanced(brief: LinearBrief, asked: Balancing): Promise<BalanceShown> {
    const { plan, schedule } = this.held;
    const found = balancedLine({ plan, schedule, brief }, asked);
    if (found.commands.length === 0) return { ...found, page: null };
    const then = applied(this.held, { do: 'all', commands: found.commands });
    const page = await this.composeOf(then, { ...brief, keep: asked.days });
    return { ...found, page };
  }

  /** The same work in each of several units; null where nothing or nowhere is chosen. */
  repeated(asked: Repeating): Repeated | null {
    return repeated(this.held, asked);
  }

  /** A work along a line, to be taken hold of. */
  lineWork(ref: string): LineWork | null {
    return lineWorkOf(this.held, ref);
  }

  /** Where a work along a line would run, while it is dragged. */
  lineMoving(ref: string, move: LineMove): LineMoving | null {
    return lineMoving(this.held, ref, move);
  }

  /** What comes of a change to a work along a line, and the page as it would be. */
  async lineProposal(
    brief: LinearBrief,
    ref: string,
    asked: LineAsked,
    follow: boolean,
  ): Promise<(LineProposal & { page: ComposedPage }) | null> {
    const found = lineProposal(this.held, ref, asked, follow);
    return found && { ...found, page: await this.composeOf(applied(this.held, found.command), brief) };
  }

  /** Other ways to group a page. */
  regroupings(brief: Brief): Regrouping[] {
    return brief.kind === 'timeline' ? regroupings(this.held.plan, this.held.schedule, brief) : [];
  }

  compose(brief: Brief, sheet = 1): Promise<ComposedPage> {
    return this.composeOf(this.held, brief, sheet);
  }

  /** The models of the plan; `again` where they may have changed. */
  async modelBook(again = false): Promise<ModelBook> {
    if (again) this.models = null;
    this.models ??= fetchModels(this.planId);
    this.models.catch(() => {
      this.models = null;
    });
    const book = await this.models;
    this.fields = book.fields;
    return book;
  }

  /** How the plan stands, in a few words each. */
  async standingFacts(): Promise<PlanFacts> {
    const { plan, schedule } = this.held;
    return planFacts(plan, schedule, await this.keptEdition(PROMISED), this.planId);
  }

  /** The cover and the overview of a folio. */
  frontPages(asked: FrontAsked): FrontPages {
    return frontPages(asked, this.measure, asSvg);
  }

  async elementFieldList(): Promise<SelectField[]> {
    return (await this.modelBook()).fields;
  }

  /** The model as it stands on a day. */
  async modelStanding(asked: StandingAsked, compare: string | null): Promise<ModelStandingShown> {
    return modelStandingShown(this.held, await this.modelBook(), await this.keptEdition(compare), asked);
  }

  async matching(all: { works: boolean; kinds: boolean }): Promise<MatchingShown> {
    return matchingShown(this.held, await this.modelBook(), all);
  }

  async ruleList(rules: MatchRule[]): Promise<RuleShown[]> {
    const book = await this.modelBook();
    const { codeFields } = this.held.plan;
    return rulesShown(this.held, book, rules, (c) =>
      conditionWords({ codeFields, effortDay: null, fields: book.fields }, c),
    );
  }

  async rulesCommand(rules: MatchRule[]): Promise<Command | null> {
    return rulesCommand(this.held, await this.modelBook(), rules);
  }

  /** What a model itself says of who builds what. */
  async assignedCommand(model: string): Promise<Command | null> {
    const found = (await this.modelBook()).models.find((m) => m.id === model);
    return found ? assignedCommand(this.held, found.assigned) : null;
  }

  async elementsFacts(chosen: number[]): Promise<ElementsFacts> {
    return elementsFacts(this.held, await this.modelBook(), chosen);
  }

  async elementsWhere(where: Condition): Promise<number[]> {
    return elementsWhere(this.held, await this.modelBook(), where);
  }

  async elementCells(chosen: number[], columns: string[]): Promise<string[][]> {
    return elementCells(this.held, await this.modelBook(), chosen, columns);
  }

  async elementTexts(field: string): Promise<string[]> {
    return elementTexts(this.held, await this.modelBook(), field);
  }

  /** Codes of elements from a pasted table, with values that the book lacks; and what could not be used. */
  async pastedElementCodes(field: string, key: string, table: string[][]): Promise<CodedElements> {
    return codedElements(this.held, await this.modelBook(), field, { key, table });
  }

  /** Codes of elements from what they say themselves. */
  async codesFromField(field: string, from: string, characters: number | null): Promise<CodedElements> {
    return codedElements(this.held, await this.modelBook(), field, { from, characters });
  }

  /** A code for elements that are chosen. */
  async codedElements(field: string, code: string, chosen: number[]): Promise<CodedElements> {
    return codedElements(this.held, await this.modelBook(), field, { code, chosen });
  }

  /** A file of what is matched; `written` is when it is said to be written. */
  async modelFile(kind: ModelOut, asked: StandingAsked, compare: string | null, written: number) {
    const { looks } = await this.modelStanding(asked, compare);
    return modelFile(this.held, await this.modelBook(), kind, { day: asked.day, written, looks });
  }

  async elementsOfWork(ref: string): Promise<number[]> {
    return elementsOfWork(this.held, await this.modelBook(), ref);
  }

  private async composeOf(held: Held, brief: Brief, sheet = 1): Promise<ComposedPage> {
    const promised = await this.keptEdition(brief.compare);
    const editions = EXHIBITS[brief.kind].allEditions ? await this.latestEditions() : [];
    const model = EXHIBITS[brief.kind].needsModel ? await this.modelBook() : null;
    const scene = composeExhibit({
      ...held,
      model,
      brief,
      sheet,
      measure: this.measure,
      amounts: amountWords(held.plan, localeOfPage('language' in brief ? brief.language : undefined, this.locale)),
      edition: this.edition,
      promised,
      editions,
    });
    const svg = asSvg(scene);
    const { title, fit, content, undated, width, height } = scene;
    const words = scene.blind === null ? '' : blindWords(scene.blind);
    const blind = scene.blind === null || words === '' ? null : { ...scene.blind, words };
    return {
      svg,
      title,
      fit,
      blind,
      content,
      undated,
      width,
      height,
      sheet: scene.sheet ?? { number: 1, of: 1 },
      handles: scene.handles ?? null,
      cards: scene.cards ?? null,
      plane: scene.plane ?? null,
    };
  }

  /** Arranges the ledger; its lines are then asked for as they come in sight. */
  async arrange(arrangement: Arrangement, closed: string[], sight: Sight): Promise<LedgerShape> {
    this.looked = true;
    return (await this.viewAs(arrangement, closed)).shape(sight);
  }

  private async viewAs(arrangement: Arrangement, closed: string[]): Promise<LedgerView> {
    const promised = await this.keptEdition(PROMISED);
    const of = JSON.stringify([arrangement, closed]);
    if (!this.view || this.viewOf !== of) this.view = new LedgerView({ ...this.held, promised }, arrangement, closed);
    this.viewOf = of;
    this.arranged = [arrangement, closed];
    return this.view;
  }

  /** Whoever sees the ledger asks for it once more as soon as the plan is another: it is made ready meanwhile. */
  private viewAgain(): void {
    const { looked, arranged } = this;
    this.looked = false;
    this.viewOf = null;
    // Behind the answer that is being given.
    if (looked && arranged) setTimeout(() => this.viewOf === null && void this.viewAs(...arranged).catch(() => {}));
  }

  lines(from: number, to: number): LedgerShown[] {
    return this.view?.window(from, to) ?? [];
  }

  /** Where an activity stands, and the groups of the outline that hold it, outermost first. */
  lineOf(ref: string): { place: number; holders: string[] } {
    const { plan, schedule } = this.held;
    const holders: string[] = [];
    for (
      let i = schedule.outline.parent[schedule.outline.indexOf.get(ref) ?? -1] ?? -1;
      i !== -1;
      i = schedule.outline.parent[i]!
    )
      holders.unshift(plan.activities[i]!.ref);
    return { place: this.view?.placeOf(ref) ?? -1, holders };
  }

  refsOn(from: number, to: number): string[] {
    return this.view?.refs(from, to) ?? [];
  }

  found(looking: Looking, fields: string[]): FoundCells {
    return this.view ? foundCells(this.view, looking, fields) : { cells: [], open: 0 };
  }

  replaced(cells: FoundCell[], looking: Looking, by: string): { ref: string; field: string; text: string }[] {
    return this.view ? replacedCells(this.held, this.view, cells, looking, by) : [];
  }

  /** What only rows with the same value answer; null for what the plan does not have. */
  like(ref: string, field: string): Test | null {
    return likeTest(this.held, ref, field);
  }

  copied(from: number, to: number, columns: number[]): string[][] {
    return this.view?.table(from, to, columns) ?? [];
  }

  typed(cells: { ref: string; field: string; text: string }[]): ReturnType<typeof typedCells> {
    return typedCells(this.held, cells);
  }

  added(behind: string | null, fields: string[], rows: string[][]): ReturnType<typeof addedRows> {
    return addedRows(this.held, behind, fields, rows);
  }

  consequences(command: Command, refs: string[]): Consequences {
    return consequencesOf(this.held, command, refs);
  }

  suggestions(field: string, text: string): Suggestion[] {
    return suggestionsFor(this.held, field, text);
  }

  /** What leads to an activity and what follows it. */
  neighbours(ref: string): Neighbours {
    return neighboursOf(this.held, ref, (i) => this.view?.strip(i) ?? null);
  }

  editText(ref: string, field: string, shown: string): string {
    return editText(this.held, ref, field, shown);
  }

  lengthMeant(ref: string, text: string): string {
    return lengthMeant(this.held, ref, text);
  }

  dayMeant(ref: string, text: string): DayMeant {
    return dayMeant(this.held, ref, text);
  }

  /** Groups of the outline below a level, to be closed. */
  closable(level: number): string[] {
    const { plan, schedule: s } = this.held;
    return plan.activities.flatMap((a, i) =>
      s.outline.children[i]!.length > 0 && s.outline.level[i]! >= level ? [a.ref] : [],
    );
  }

  sketched(): SketchedRow[] {
    return sketchedRows(this.held);
  }

  facts(ref: string): Facts | null {
    return factsOf(this.held, ref, this.from);
  }

  /** What the margin of the ledger says of the activities that are chosen. */
  async about(refs: string[]): Promise<About | null> {
    return aboutOf({ ...this.held, promised: await this.keptEdition(PROMISED) }, refs);
  }

  /** How the kept editions had an activity, the latest first. */
  async inEditions(ref: string): Promise<EditionFacts[]> {
    const found: EditionFacts[] = [];
    for (const { id, name } of this.editions) {
      const kept = await this.keptEdition(id);
      found.push({
        edition: name,
        words: (kept && editionWords(kept.plan, kept.schedule, ref)) ?? 'not in it',
      });
    }
    return found;
  }

  /** How the plan stands against an edition; null where there is none, or the plan has no status date. */
  async standing(measuring: Measuring): Promise<StandingShown | null> {
    const promised = await this.keptEdition(measuring.against);
    const moment = statusEnd(this.held.plan);
    return promised && moment !== null ? standingShown(this.held, promised, measuring, moment, this.locale) : null;
  }

  async rowsBehind(measuring: Measuring, behind: Behind): Promise<RowsShown> {
    const promised = await this.keptEdition(measuring.against);
    const moment = statusEnd(this.held.plan);
    return promised && moment !== null
      ? rowsBehind(this.held, promised, measuring, moment, behind)
      : { count: 0, rows: [] };
  }

  /** What the status date asks, with what the latest kept edition said; null for a plan without a status date. */
  async round(weeks: number): Promise<RoundShown | null> {
    const moment = statusEnd(this.held.plan);
    if (moment === null) return null;
    const [promised, last] = [await this.keptEdition(PROMISED), await this.keptEdition(this.editions[0]?.id ?? null)];
    return roundShown({ ...this.held, promised }, last, moment, 7 * weeks);
  }

  roundWould(ref: string, field: string, text: string): RoundWould {
    return roundWould(this.held, ref, field, text);
  }

  /** How the plan came to stand as it does, over the editions that were kept. */
  async overEditions(asked: EditionsAsked): Promise<EditionsShown> {
    const kept = await this.latestEditions();
    return editionsShown(this.held, kept, this.editions.length - kept.length, asked);
  }

  /** The editions that were kept last, the oldest first. */
  private async latestEditions(): Promise<(Promised & { id: string })[]> {
    const wanted = this.editions.slice(0, MOST_EDITIONS).reverse();
    return Promise.all(wanted.map(async ({ id }) => ({ id, ...(await this.keptEdition(id))! })));
  }

  calendarUse(): Record<string, number> {
    return calendarUse(this.held);
  }

  putCalendar(next: CalendarSpec): Command {
    return putCalendar(this.held, next);
  }

  putResource(id: string, part: Partial<Omit<Resource, 'id'>>): Command {
    return putResource(this.held, id, part);
  }

  withoutCalendar(id: string): Command {
    return withoutCalendar(this.held, id);
  }

  needs(step: Step): NeedsShown {
    return needsShown(this.held, step);
  }

  withoutResource(id: string): Command {
    return withoutResource(this.held, id);
  }

  assigned(ref: string, id: string, hours: number): Command | null {
    return assigned(this.held, ref, id, hours);
  }

  shapedAssignment(ref: string, id: string, shape: string): Command | null {
    return shapedAssignment(this.held, ref, id, shape);
  }

  books(): Book[] {
    return booksOf(this.held);
  }

  /** What a field would be filled with; `field` need not be kept yet. */
  previewFill(field: CodeField): FillPreview {
    return previewFill(this.held, field);
  }

  /** The command that keeps a field and fills it. */
  fillCommand(field: CodeField): Command {
    return fillCommand(this.held, field);
  }

  /** Values of a field of the plan that a condition may speak of, for completing what is typed. */
  texts(field: string): string[] {
    return codeTexts(this.held, field);
  }

  refsWithCode(field: string, code: string): string[] {
    return this.held.plan.activities.filter((a) => (a.codes[field] ?? '') === code).map((a) => a.ref);
  }

  pastedCodes(table: string[][], column: number | null): PastedCodes {
    return readPastedCodes(this.held.plan, table, column);
  }

  work(opened: Record<string, number>): WorkShown {
    return workShown(this.checked, opened);
  }

  /** Keys of all items of a group that is open. */
  workKeys(group: string): string[] {
    const { plan, schedule } = this.checked;
    return (
      worklist(plan, schedule)
        .find((g) => g.id === group)
        ?.items.map((i) => i.key) ?? []
    );
  }

  /** What mends findings of a group: those with the keys, or all of them. */
  mend(group: string, keys: string[] | null, mend: string, answer: string): Command {
    return mendingCommand(this.checked, group, keys, mend, answer);
  }

  drawn(drawing: Drawing): { command: Command; ref: string } | null {
    return drawn(this.held, drawing);
  }

  dragged(dragging: Dragging, follow: boolean): Command | null {
    return dragged(this.held, dragging, follow);
  }

  withFollowers(command: Command): Command {
    return withFollowers(this.held, command);
  }

  milestoneBehind(ref: string): { command: Command; ref: string } | null {
    return milestoneBehind(this.held, ref);
  }

  /** Copies of activities with all that they hold, and their references. */
  duplicated(refs: string[]): { command: Command; refs: string[] } | null {
    return duplicated(this.held.plan, refs);
  }

  carried(refs: string[], place: RowPlace, target: string): Command | null {
    return carried(this.held.plan, refs, place, target);
  }

  alike(refs: string[]): AlikeRow[] {
    return alikeRows(this.held, refs);
  }

  async checks(): Promise<Checks> {
    return checksOf(this.checked, await this.keptEdition(PROMISED));
  }

  /** Activities whose name or reference holds the text. */
  find(text: string, limit: number): { ref: string; name: string }[] {
    const wanted = text.trim().toLowerCase();
    if (wanted === '') return [];
    const found: { ref: string; name: string }[] = [];
    for (const { ref, name } of this.held.plan.activities) {
      if (!name.toLowerCase().includes(wanted) && !ref.toLowerCase().includes(wanted)) continue;
      found.push({ ref, name });
      if (found.length === limit) break;
    }
    return found;
  }
}

expose(new PlanRoom());
