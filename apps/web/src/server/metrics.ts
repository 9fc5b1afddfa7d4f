import 'server-only';
import { countJobs } from '@clembo/store';
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';
import { store } from './store';

function make() {
  const registry = new Registry();
  collectDefaultMetrics({ register: registry });
  const answers = new Histogram({
    name: 'clembo_answer_seconds',
    help: 'How long answers took, by route, method and status.',
    labelNames: ['route', 'method', 'status'],
    buckets: [0.01, 0.05, 0.1, 0.3, 1, 3, 10, 30],
    registers: [registry],
  });
  new Gauge({
    name: 'clembo_jobs',
    help: 'Jobs of the last hours, by kind and state.',
    labelNames: ['kind', 'state'],
    registers: [registry],
    async collect() {
      this.reset();
      for (const { kind, state, jobs } of await countJobs(store())) this.set({ kind, state }, jobs);
    },
  });
  return { registry, answers };
}

const kept = globalThis as { clemboMetrics?: ReturnType<typeof make> };

/** What this process counts about itself; made when it is first needed. */
export const metrics = () => (kept.clemboMetrics ??= make());

/** A path with what is different in each of them left out, so that there are few of them. */
export const routeOf = (path: string): string =>
  path
    .replace(/^\/s\/[^/]+/, '/s/:token')
    .replace(/\/[0-9a-f]{8}-[0-9a-f-]{27}(?=\/|$)/g, '/:id')
    .replace(/^(\/api\/people)\/[^/]+/, '$1/:account')
    .replace(/\/\d+(?=\/|$)/g, '/:no');
