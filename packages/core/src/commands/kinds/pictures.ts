import { type Kind, type Of, placeOf } from '../kind';
import { placed } from '../placed';
import { CommandRefused } from '../refused';

export const setPicture: Kind<Of<'setPicture'>> = {
  apply: (draft, { picture, before }) => {
    const { list, was, behind } = placed(draft.rest.pictures, picture, before, 'picture');
    draft.set({ pictures: list });
    if (!was) return { do: 'removePicture', id: picture.id };
    return { do: 'setPicture', picture: was, ...(before !== undefined && { before: behind }) };
  },
  writes: ({ picture, before }) => [
    ['picture', picture.id, 'said'],
    ...(before === undefined ? [] : [['picture', picture.id, 'place']]),
  ],
  relies: ({ before }) => placeOf('picture', before),
  words: ({ picture }) => `Put in the picture ${picture.name}`,
};

export const removePicture: Kind<Of<'removePicture'>> = {
  apply: (draft, { id }) => {
    const { pictures } = draft.rest;
    const at = pictures.findIndex((p) => p.id === id);
    if (at < 0) throw new CommandRefused('That picture is not in the plan (any more).');
    draft.set({ pictures: pictures.filter((_, k) => k !== at) });
    return { do: 'setPicture', picture: pictures[at]!, before: pictures[at + 1]?.id ?? null };
  },
  writes: ({ id }) => [['picture', id]],
  relies: () => [],
  words: () => 'Remove a picture',
};
