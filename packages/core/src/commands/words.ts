import type { Command } from './command';
import { kindOf } from './table';

/** What a command does, as a person would say it in a history: `Rename A12`, `Code 40 activities by phase`. */
export function commandWords(command: Command): string {
  if (command.do !== 'all') return kindOf(command).words(command);
  const [first, ...others] = new Set(command.commands.map(commandWords));
  if (first === undefined) return 'Change nothing';
  return others.length === 0 ? first : `${first}, and ${others.length} more`;
}
