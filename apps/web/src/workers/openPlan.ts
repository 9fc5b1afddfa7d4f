import { LivePlan, isMilestone, type Plan, schedulePlan, type SelectField } from '@clembo/core';
import { MOST_EDITIONS, PROMISED, type Promised } from '@clembo/scene';
import { type Effect, type Event, next, opened, type State } from '@clembo/sync';
import type { CameFrom } from './answers/facts';
import type { Held } from './answers/held';
import { fetchModels, type ModelBook } from './answers/models';
import { fetchPlan } from './fetchPlan';

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

/** What came of an event: the head where another plan is shown, and what is to be done. */
export interface Taken {
  version: number;
  head: PlanHead | null;
  effects: Effect[];
}

/**
 * A plan held in the browser: kept by `sync`, scheduled as it changes, with its kept editions and models, which are
 * fetched when they are first asked for.
 */
export class OpenPlan {
  private planId = '';
  private live: LivePlan | null = null;
  /** The plan as it is kept, and what is shown on top of it; the schedule is of what is shown. */
  private sync!: State;
  private readonly kept = new Map<string, Promise<Promised>>();
  private models: Promise<ModelBook> | null = null;
  private fields: SelectField[] | null = null;
  /** Called as the plan that is shown becomes another. */
  onOther: () => void = () => {};
  edition = '';
  locale = 'en-GB';
  /** Where its activities come from. */
  from: CameFrom = { sources: [], rows: () => new Map() };
  promisedId: string | null = null;
  editions: PlanHead['editions'] = [];

  get id(): string {
    return this.planId;
  }

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
    this.onOther();
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

  get held(): Held {
    const { plan, schedule } = this.livePlan;
    return { plan, schedule };
  }

  /** With the findings of the schedule as it stands. */
  get checked(): Held {
    this.livePlan.refreshFindings();
    return this.held;
  }

  /** A kept edition with its schedule, or null where there is none by that id. */
  async keptEdition(id: string | null): Promise<Promised | null> {
    const edition = this.editions.find((e) => e.id === (id === PROMISED ? this.promisedId : id));
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

  /** The editions that were kept last, the oldest first. */
  async latestEditions(): Promise<(Promised & { id: string })[]> {
    const wanted = this.editions.slice(0, MOST_EDITIONS).reverse();
    return Promise.all(wanted.map(async ({ id }) => ({ id, ...(await this.keptEdition(id))! })));
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
}
