import { SKETCH_KEY_WORDS } from '@/features/gather/sketch/sketchKeys';
import { GRID_KEY_WORDS } from '@/features/structure/gridKeys';

/** The keys of each screen, in words: what the help page and the screens themselves show. */
export const KEY_HELP = {
  Everywhere: [
    ['1 to 5', 'go to the stages'],
    ['/ or Ctrl K', 'search and act'],
    ['Ctrl Z', 'take back; with Shift, do again'],
    ['?', 'this page'],
    ['n', 'something new here'],
  ],
  'The ledger': GRID_KEY_WORDS,
  'A cell that is typed into': [
    ['Enter, Shift Enter', 'keep it and go down, or up'],
    ['Tab, Shift Tab', 'keep it and go right, or left'],
    ['Down, Up', 'choose from what may be meant'],
    ['Escape', 'close the list; leave it as it was'],
  ],
  'A sketch': SKETCH_KEY_WORDS,
  'An exhibit': [
    ['e', 'edit the brief'],
    ['t', 'type the sentence of the brief'],
    ['b', 'what the page hides'],
    ['w', 'the page at full width'],
    ['[ and ]', 'the exhibit before, and the next'],
    ['Shift and a click', 'choose one more'],
    ['Arrows, Delete', 'move the chosen note, take it away'],
    ['Escape', 'close the margin'],
  ],
} as const;
