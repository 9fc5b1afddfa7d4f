// A process of its own that does one task after the other, and nothing else. See hands.ts.
import { UnreadableFile } from '@clembo/formats';
import { PageRefused } from '@clembo/render';
import type { FromHand, ToHand } from './messages';
import { between, TASKS } from './tasks';

type Task = (input: unknown, report: (step: string, share: number) => void) => unknown;
const say = (message: FromHand, then?: () => void) => process.send!(message, undefined, undefined, then);

process.on('message', ({ task, input }: ToHand) => {
  const report = (step: string, share: number) => say({ step, share });
  const work = (TASKS as unknown as Record<string, Task>)[task];
  Promise.resolve()
    .then(() => {
      if (!Object.hasOwn(TASKS, task) || !work) throw new Error(`there is no task ${task}`);
      return work(input, report);
    })
    .then(
      // Once the answer is out.
      (value) => say({ value }, between),
      (error: unknown) => {
        if (error instanceof UnreadableFile || error instanceof PageRefused) say({ refused: error.message });
        else say({ fault: error instanceof Error ? (error.stack ?? error.message) : String(error) });
      },
    );
});
// Whoever gave the tasks is gone.
process.on('disconnect', () => process.exit(0));
