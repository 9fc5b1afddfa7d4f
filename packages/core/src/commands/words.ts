import type { Command } from './command';

const SETTING_WORDS: Partial<Record<string, string>> = {
  name: 'Rename the plan',
  statusDate: 'Set the status date',
  start: 'Set the start of the plan',
  source: 'Choose which dates are shown',
  asPromised: 'Take promised dates as they stand',
  calendars: 'Change the calendars',
  calendar: 'Choose the plan’s calendar',
  lines: 'Change the lines',
  matchRules: 'Change the match rules',
  buildViews: 'Change the views of the model',
  resources: 'Change the resources',
  required: 'Choose required fields',
  aside: 'Put findings aside',
  tolerance: 'Change the tolerance',
  tolerances: 'Change the tolerance of a part',
  currency: 'Choose the currency',
  effortDay: 'Choose how effort is told',
};

const PART_WORDS: Partial<Record<string, string>> = {
  name: 'Rename',
  parent: 'Move in the outline',
  start: 'Move',
  finish: 'Move',
  duration: 'Change the length of',
  percent: 'Report progress of',
  actualStart: 'Report progress of',
  actualFinish: 'Report progress of',
};

const things = (count: number): string => (count === 1 ? 'one element' : `${count} elements`);
const EFFECT_WORDS = { builds: 'built by', removes: 'removed by', stands: 'standing for' };
const rows = (count: number): string => (count === 1 ? 'one activity' : `${count} activities`);

/** What a command does, as a person would say it in a history: `Rename A12`, `Code 40 activities by phase`. */
export function commandWords(command: Command): string {
  switch (command.do) {
    case 'setPlan': {
      const [first] = Object.keys(command.settings);
      return SETTING_WORDS[first ?? ''] ?? 'Change the settings of the plan';
    }
    case 'changeActivity': {
      const [first = ''] = Object.keys(command.part);
      return `${PART_WORDS[first] ?? 'Change'} ${command.ref}`;
    }
    case 'addActivity':
      return `Add ${command.activity.name || command.activity.ref}`;
    case 'removeActivity':
      return `Remove ${command.ref}`;
    case 'moveActivity':
      return `Move ${command.ref} in the list`;
    case 'addLink':
      return `Link ${command.link.from} → ${command.link.to}`;
    case 'removeLink':
      return `Remove the link ${command.link.from} → ${command.link.to}`;
    case 'setCodeField':
      return `Change the code book ${command.field.name}`;
    case 'removeCodeField':
      return `Remove the code field ${command.id}`;
    case 'setPicture':
      return `Put in the picture ${command.picture.name}`;
    case 'removePicture':
      return 'Remove a picture';
    case 'matchElements':
      return `Match ${things(command.match.elements.length)}, ${EFFECT_WORDS[command.match.effect]} ${command.match.activity}`;
    case 'unmatchElements':
      return `Take ${things(command.match.elements.length)} from ${command.match.activity}`;
    case 'codeElements':
      return `Code ${things(command.codes.length)} by ${command.field}`;
    case 'recode':
      return `Code ${rows(command.codes.length)} by ${command.field}`;
    case 'all': {
      const words = [...new Set(command.commands.map(commandWords))];
      return words.length === 1
        ? words[0]!
        : words.length === 0
          ? 'Change nothing'
          : `${words[0]}, and ${words.length - 1} more`;
    }
  }
}
