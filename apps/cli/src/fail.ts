/** Something that the person at the command line can put right: printed without a stack, exit code 2. */
export class UsageError extends Error {
  override name = 'UsageError';
}
