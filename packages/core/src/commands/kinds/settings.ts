import type { PlanSettings } from '../command';
import type { Kind, Of } from '../kind';

const WORDS: Partial<Record<string, string>> = {
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

export const setPlan: Kind<Of<'setPlan'>> = {
  apply: (draft, { settings }) => {
    const before = Object.keys(settings).map((key) => [key, draft.rest[key as keyof PlanSettings]]);
    draft.set(settings);
    return { do: 'setPlan', settings: Object.fromEntries(before) };
  },
  writes: ({ settings }) => Object.keys(settings).map((key) => ['plan', key]),
  relies: () => [],
  words: ({ settings }) => WORDS[Object.keys(settings)[0] ?? ''] ?? 'Change the settings of the plan',
};
