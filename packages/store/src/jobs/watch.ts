import pg from 'pg';
import { HERE_CHANNEL } from '../here';
import { PLAN_CHANNEL } from '../steps';
import { JOB_CHANNEL } from './jobs';

/** Between attempts to be connected again, in milliseconds. */
const AGAIN = 500;

/**
 * Hears of every change of a job or a plan over one connection for the whole process. While that connection is lost, those
 * who wait are woken at intervals instead: they ask again, and nobody waits for ever.
 */
export class JobWatch {
  private readonly waiting = new Map<string, Set<() => void>>();
  private client: pg.Client | null = null;
  private connecting = false;
  private ended = false;

  constructor(
    private readonly url: string,
    private readonly heard: (payload: string, channel: string) => void = () => {},
  ) {}

  /** Ends at the next change of a job or plan, or after some time. Ask how it stands after calling this, not before. */
  changed(id: string, milliseconds: number): Promise<void> {
    this.connect();
    return new Promise((resolve) => {
      const wakers = this.waiting.get(id) ?? new Set();
      const wake = () => {
        clearTimeout(timer);
        wakers.delete(wake);
        if (wakers.size === 0) this.waiting.delete(id);
        resolve();
      };
      // Without a connection no change is heard.
      const timer = setTimeout(wake, this.client ? milliseconds : Math.min(milliseconds, AGAIN));
      wakers.add(wake);
      this.waiting.set(id, wakers);
    });
  }

  /** Begins to listen; also called by the first who waits. */
  connect(): void {
    if (this.client || this.connecting || this.ended) return;
    this.connecting = true;
    const client = new pg.Client({ connectionString: this.url, keepAlive: true });
    const lost = () => {
      if (this.client === client) this.client = null;
      for (const wakers of [...this.waiting.values()]) for (const wake of [...wakers]) wake();
      client.removeAllListeners('end');
      void client.end().catch(() => {});
      setTimeout(() => this.connect(), AGAIN).unref();
    };
    client.on('error', lost);
    client.on('end', lost);
    client.on('notification', ({ payload, channel }) => {
      if (payload === undefined) return;
      this.heard(payload, channel);
      // A plan is told with its version: who waits, waits for the plan.
      const [id = payload] = payload.split(' ');
      for (const wake of [...(this.waiting.get(id) ?? [])]) wake();
    });
    client
      .connect()
      .then(() => client.query(`listen ${JOB_CHANNEL}; listen ${PLAN_CHANNEL}; listen ${HERE_CHANNEL}`))
      .then(
        () => {
          this.connecting = false;
          this.client = client;
        },
        () => {
          this.connecting = false;
          lost();
        },
      );
  }

  async end(): Promise<void> {
    this.ended = true;
    this.client?.removeAllListeners('end');
    await this.client?.end().catch(() => {});
    this.client = null;
  }
}
