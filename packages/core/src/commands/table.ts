import type { Single } from './command';
import type { Kind } from './kind';
import { addActivity, changeActivity, moveActivity, removeActivity } from './kinds/activities';
import { codeElements, recode, removeCodeField, setCodeField } from './kinds/codes';
import { addLink, removeLink } from './kinds/links';
import { matchElements, unmatchElements } from './kinds/matches';
import { removePicture, setPicture } from './kinds/pictures';
import { setPlan } from './kinds/settings';

type Table = { readonly [K in Single['do']]: Kind<Extract<Single, { do: K }>> };

const TABLE: Table = {
  setPlan,
  changeActivity,
  addActivity,
  removeActivity,
  moveActivity,
  addLink,
  removeLink,
  setCodeField,
  removeCodeField,
  recode,
  codeElements,
  setPicture,
  removePicture,
  matchElements,
  unmatchElements,
};

/** All that there is to say of the kind of a command. */
export const kindOf = (command: Single): Kind<Single> => TABLE[command.do] as unknown as Kind<Single>;
