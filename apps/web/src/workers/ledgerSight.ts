import type { Arrangement } from '@clembo/core';
import { PROMISED } from '@clembo/scene';
import { LedgerView } from './answers/ledger';
import type { OpenPlan } from './openPlan';

/** The ledger as it was arranged last. */
export class LedgerSight {
  view: LedgerView | null = null;
  /** What the view was made of; null where the plan has changed since. */
  private viewOf: string | null = null;
  private arranged: [Arrangement, string[]] | null = null;
  /** Whether it was asked for since the plan changed. */
  private looked = false;

  constructor(private readonly open: OpenPlan) {
    open.onOther = () => this.again();
  }

  /** Arranges the ledger; its lines are then asked for as they come in sight. */
  arrange(arrangement: Arrangement, closed: string[]): Promise<LedgerView> {
    this.looked = true;
    return this.as(arrangement, closed);
  }

  private async as(arrangement: Arrangement, closed: string[]): Promise<LedgerView> {
    const promised = await this.open.keptEdition(PROMISED);
    const of = JSON.stringify([arrangement, closed]);
    if (!this.view || this.viewOf !== of)
      this.view = new LedgerView({ ...this.open.held, promised }, arrangement, closed);
    this.viewOf = of;
    this.arranged = [arrangement, closed];
    return this.view;
  }

  /** Whoever sees the ledger asks for it once more as soon as the plan is another: it is made ready meanwhile. */
  private again(): void {
    const { looked, arranged } = this;
    this.looked = false;
    this.viewOf = null;
    // Behind the answer that is being given.
    if (looked && arranged) setTimeout(() => this.viewOf === null && void this.as(...arranged).catch(() => {}));
  }
}
