/** A key as it is pressed. */
export interface Pressed {
  key: string;
  ctrlKey: boolean;
  metaKey: boolean;
  shiftKey: boolean;
  altKey: boolean;
}

/** What the ledger is about when a key is pressed. */
export interface GridState {
  /** Several cells are chosen. */
  drawnOut: boolean;
  /** An activity stands open with its neighbours. */
  opened: boolean;
  /** The line is an activity. */
  onRow: boolean;
  /** The line can be opened and closed. */
  canClose: boolean;
  /** Rows stand in their outline, so that they can be put into each other. */
  outlined: boolean;
}

export type GridAct =
  | 'leave'
  | 'go'
  | 'next'
  | 'ends'
  | 'page'
  | 'extend'
  | 'shift'
  | 'carry'
  | 'indent'
  | 'open'
  | 'edit'
  | 'over'
  | 'walk'
  | 'insert'
  | 'duplicate'
  | 'remove'
  | 'clear'
  | 'fill'
  | 'all'
  | 'toggle'
  | 'find'
  | 'like'
  | 'everything'
  | 'zoom'
  | 'pan';

interface GridKey {
  act: GridAct;
  /** The keys and what they do, for the page of keys; null for what stands there already. */
  says: [keys: string, what: string] | null;
  when: (k: Pressed, s: GridState) => boolean;
}

const mod = (k: Pressed): boolean => k.ctrlKey || k.metaKey;
const bare = (k: Pressed): boolean => !mod(k) && !k.altKey;
const upDown = (k: Pressed): boolean => k.key === 'ArrowUp' || k.key === 'ArrowDown';
const leftRight = (k: Pressed): boolean => k.key === 'ArrowLeft' || k.key === 'ArrowRight';
const erases = (k: Pressed): boolean => k.key === 'Delete' || k.key === 'Backspace';

/** The keys of the ledger, the first that fits decides. What the page of keys says comes from here. */
export const GRID_KEYS: readonly GridKey[] = [
  { act: 'leave', says: null, when: (k, s) => k.key === 'Escape' && (s.drawnOut || s.opened) },
  { act: 'carry', says: ['Alt Up, Down', 'move the row in the list'], when: (k) => k.altKey && upDown(k) },
  {
    act: 'zoom',
    says: ['Alt +, −, 0', 'the time strips finer, coarser, all of them'],
    when: (k) => k.altKey && ['+', '=', '-', '−', '0'].includes(k.key),
  },
  {
    act: 'indent',
    says: ['Alt Shift Right, Left', 'into the row above, and out again'],
    when: (k, s) => k.altKey && k.shiftKey && leftRight(k) && s.onRow && s.outlined,
  },
  {
    act: 'pan',
    says: ['Alt Left, Right', 'the time strips earlier, later'],
    when: (k) => k.altKey && !k.shiftKey && leftRight(k),
  },
  {
    act: 'shift',
    says: ['Shift Left, Right', 'move the activity by a working day'],
    when: (k) => k.shiftKey && bare(k) && leftRight(k),
  },
  {
    act: 'extend',
    says: ['Shift Up, Down', 'draw the range out; with Ctrl Left, Right too'],
    when: (k) => k.shiftKey && !k.altKey && (upDown(k) || leftRight(k)) && (upDown(k) || mod(k)),
  },
  { act: 'ends', says: null, when: (k) => mod(k) && upDown(k) },
  {
    act: 'go',
    says: ['Arrows, Home, End', 'go from cell to cell; with Ctrl to the ends'],
    when: (k) => !k.altKey && (upDown(k) || leftRight(k) || k.key === 'Home' || k.key === 'End'),
  },
  { act: 'page', says: null, when: (k) => k.key === 'PageDown' || k.key === 'PageUp' },
  {
    act: 'walk',
    says: ['< and >', 'walk to the tightest neighbour before or behind'],
    when: (k, s) => s.opened && bare(k) && (k.key === '<' || k.key === '>'),
  },
  {
    act: 'duplicate',
    says: ['Ctrl Shift D', 'a copy of the rows with all that they hold'],
    when: (k) => mod(k) && k.shiftKey && k.key.toLowerCase() === 'd',
  },
  { act: 'fill', says: ['Ctrl D', 'fill down'], when: (k) => mod(k) && k.key.toLowerCase() === 'd' },
  { act: 'all', says: ['Ctrl A', 'choose everything'], when: (k) => mod(k) && k.key.toLowerCase() === 'a' },
  { act: 'find', says: ['Ctrl F', 'find and replace'], when: (k) => mod(k) && k.key.toLowerCase() === 'f' },
  {
    act: 'remove',
    says: ['Ctrl Delete', 'remove the rows'],
    when: (k) => mod(k) && erases(k),
  },
  {
    act: 'like',
    says: ['Alt Enter', 'list only rows with what is in the cell; Alt Backspace lists everything again'],
    when: (k) => k.altKey && k.key === 'Enter',
  },
  { act: 'everything', says: null, when: (k) => k.altKey && erases(k) },
  { act: 'clear', says: ['Delete', 'clear the cells'], when: (k) => bare(k) && erases(k) },
  { act: 'insert', says: ['Insert', 'a new activity behind the row'], when: (k) => bare(k) && k.key === 'Insert' },
  {
    act: 'open',
    says: ['Enter', 'open the activity with its neighbours; on the last line, begin a new one'],
    when: (k, s) => bare(k) && k.key === 'Enter' && s.onRow,
  },
  {
    act: 'edit',
    says: ['any letter, F2', 'type over a cell, change what is in it'],
    when: (k) => bare(k) && (k.key === 'Enter' || k.key === 'F2'),
  },
  { act: 'next', says: ['Tab, Shift Tab', 'to the next cell, and back'], when: (k) => bare(k) && k.key === 'Tab' },
  {
    act: 'toggle',
    says: ['Space', 'open or close a group'],
    when: (k, s) => bare(k) && k.key === ' ' && s.canClose,
  },
  { act: 'over', says: null, when: (k) => bare(k) && k.key.length === 1 },
];

/** The keys in words, as the page of keys shows them. */
export const GRID_KEY_WORDS: [keys: string, what: string][] = [
  ...GRID_KEYS.flatMap((k) => (k.says ? [k.says] : [])),
  ['Enter, Escape', 'keep a change that is proposed among neighbours, or leave it'],
  ['Escape, Tab', 'leave the sheet'],
  ['Ctrl C, X, V', 'copy, cut and paste, also with spreadsheets'],
];
