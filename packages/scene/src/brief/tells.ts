/** The questions that the message of a page can answer by itself. */
export const TELLS = ['end', 'chain', 'next', 'behind', 'changed', 'who', 'parts', 'progress', 'milestones'] as const;
export type Tells = (typeof TELLS)[number];
