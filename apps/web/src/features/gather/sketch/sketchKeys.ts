/** The keys of the sketch, in words. */
export const SKETCH_KEY_WORDS: [keys: string, what: string][] = [
  ['a, m', 'an activity, a milestone behind the chosen row'],
  ['Up, Down', 'choose a row'],
  ['Enter', 'name it'],
  ['Tab, Shift Tab', 'into the row above, and out again'],
  ['Shift Left, Right', 'move it by a working day'],
  ['+, −', 'a working day longer, shorter'],
  ['Alt Up, Down', 'move it in the list'],
  ['Delete', 'remove it'],
  ['Escape', 'let it go; Tab then leaves the line'],
];
