import { writeFile } from 'node:fs/promises';
import { UsageError } from './fail';

/** Writes a file, or says why it cannot be written. */
export async function writeOut(file: string, content: string | Uint8Array): Promise<void> {
  try {
    await writeFile(file, content);
  } catch (error) {
    throw new UsageError(
      `${file} could not be written (${(error as NodeJS.ErrnoException).code ?? (error as Error).message}).`,
    );
  }
}
