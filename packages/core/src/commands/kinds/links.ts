import type { Link } from '../../plan/schema';
import { type Kind, type Of, theActivity, type Thing } from '../kind';

const written = ({ link }: { link: Link }): Thing[] => [['link', link.from, link.to]];
const ends = ({ link }: { link: Link }): Thing[] => [theActivity(link.from), theActivity(link.to)];

export const addLink: Kind<Of<'addLink'>> = {
  apply: (draft, { link, at }) => {
    draft.links.add(link, at);
    draft.touch(link.from, link.to);
    return { do: 'removeLink', link, ...(at !== undefined && { at }) };
  },
  writes: written,
  relies: ends,
  words: ({ link }) => `Link ${link.from} → ${link.to}`,
};

export const removeLink: Kind<Of<'removeLink'>> = {
  apply: (draft, { link, at }) => {
    const place = draft.links.remove(link, at);
    draft.touch(link.from, link.to);
    return { do: 'addLink', link, at: place };
  },
  writes: written,
  relies: ends,
  words: ({ link }) => `Remove the link ${link.from} → ${link.to}`,
};
