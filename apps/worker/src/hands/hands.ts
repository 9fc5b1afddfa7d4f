import { type ChildProcess, fork } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { constants, setPriority } from 'node:os';
import type { FromHand } from './messages';

/** Why a hand gave no answer. */
export class HandStopped extends Error {
  constructor(readonly why: 'time' | 'memory' | 'ended' | 'cancelled') {
    super(`stopped: ${why}`);
  }
}

/** What a hand refuses in words: the file, or what was asked for, is not right. */
export class HandRefused extends Error {}

/** What one task may take. */
export interface Bounds {
  seconds: number;
  megabytes: number;
}

export interface Call {
  bounds: Bounds;
  signal?: AbortSignal;
  onStep?: (step: string, share: number) => void;
}

/** How often the memory of a hand is looked at, in milliseconds. */
const LOOK = 200;

/**
 * Processes that do what cannot be trusted to end, or to stay small: one task each at a time, bounded in time and
 * memory. Whoever oversteps is ended, and a new one takes the place; the process that asked is never held up.
 */
export class Hands {
  private readonly idle: ChildProcess[] = [];
  private readonly all = new Set<ChildProcess>();
  private closed = false;

  constructor(
    private readonly program: string,
    private readonly megabytes: number,
  ) {}

  /**
   * Has a task done.
   *
   * @throws HandRefused in the words of the task; HandStopped when it overstepped its bounds or was cancelled
   */
  async work(task: string, input: unknown, { bounds, signal, onStep }: Call): Promise<unknown> {
    if (signal?.aborted || this.closed) throw new HandStopped('cancelled');
    const hand = this.idle.pop() ?? this.begin();
    return new Promise((resolve, reject) => {
      let over = false;
      const end = (settle: () => void, again: boolean) => {
        if (over) return;
        over = true;
        clearTimeout(timer);
        clearInterval(watch);
        signal?.removeEventListener('abort', cancelled);
        hand.off('message', heard).off('exit', ended);
        if (again && hand.connected) this.idle.push(hand);
        else hand.kill('SIGKILL');
        settle();
      };
      const stop = (why: HandStopped['why']) =>
        end(() => reject(new HandStopped(this.closed ? 'cancelled' : why)), false);
      const cancelled = () => stop('cancelled');
      const timer = setTimeout(() => stop('time'), bounds.seconds * 1000);
      const watch = setInterval(() => residentMegabytes(hand.pid!) > bounds.megabytes && stop('memory'), LOOK);
      signal?.addEventListener('abort', cancelled);
      const ended = (_: unknown, killedBy: string | null) => stop(killedBy === 'SIGABRT' ? 'memory' : 'ended');
      const heard = (message: FromHand) => {
        if ('step' in message) onStep?.(message.step, message.share);
        else if ('value' in message) end(() => resolve(message.value), true);
        else if ('refused' in message) end(() => reject(new HandRefused(message.refused)), true);
        else end(() => reject(new Error(message.fault)), true);
      };
      hand.on('exit', ended);
      hand.on('message', heard);
      hand.send({ task, input }, (error) => error && stop('ended'));
    });
  }

  private begin(): ChildProcess {
    const hand = fork(this.program, [], {
      // Large tables are many small objects that live long: with more room for the young, they are copied less.
      execArgv: [`--max-old-space-size=${this.megabytes}`, '--max-semi-space-size=64'],
      serialization: 'advanced',
      // What an engine prints when it runs out of memory is of no use to anybody.
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
      env: { PATH: process.env.PATH, NODE_ENV: process.env.NODE_ENV, CLEMBO_ROOT: process.env.CLEMBO_ROOT },
    });
    hand.on('error', () => {});
    hand.once('exit', () => {
      this.all.delete(hand);
      const at = this.idle.indexOf(hand);
      if (at >= 0) this.idle.splice(at, 1);
    });
    this.all.add(hand);
    try {
      // Whoever waits for a screen goes before what is done beside it.
      if (hand.pid) setPriority(hand.pid, constants.priority.PRIORITY_LOW);
    } catch {}
    return hand;
  }

  /** Ends all hands; what they were at counts as cancelled. */
  end(): void {
    this.closed = true;
    for (const hand of this.all) hand.kill('SIGKILL');
  }
}

/** The memory that a process holds, in megabytes; 0 where that cannot be found out. */
function residentMegabytes(pid: number): number {
  try {
    const pages = Number(readFileSync(`/proc/${pid}/statm`, 'utf8').split(' ')[1]);
    return (pages * 4096) / 1048576;
  } catch {
    return 0;
  }
}
