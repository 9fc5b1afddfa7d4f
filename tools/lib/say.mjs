/** Something that the person can put right: printed without a stack. */
export class SetupError extends Error {}

export const say = (text) => process.stdout.write(`${text}\n`);

/** Runs a step and tells how long it took when it took long. */
export async function step(name, work) {
  const begin = Date.now();
  say(`· ${name}`);
  const result = await work();
  const seconds = (Date.now() - begin) / 1000;
  if (seconds > 3) say(`  ${seconds.toFixed(0)} s`);
  return result;
}

/** Ends the process with the message of a known error, or with the whole of an unknown one. */
export function fail(error) {
  if (error?.code === 'ENOSPC')
    say(`\nThe disk is full (${error.path ?? error.message}). Free some space and start again; nothing is lost.`);
  else say(`\n${error instanceof SetupError ? error.message : (error?.stack ?? error)}`);
  process.exitCode = 1;
}
