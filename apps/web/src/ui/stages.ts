/** The five parts of the application, in the order of the work. Those that come later say what they will hold. */
export const STAGES = [
  { name: 'Gather', path: 'gather', later: null },
  { name: 'Structure', path: 'structure', later: null },
  { name: 'Measure', path: 'measure', later: null },
  { name: 'Show', path: 'show', later: null },
  { name: 'Share', path: 'share', later: null },
] as const;

export type StageName = (typeof STAGES)[number]['name'];

/** Where a stage lies for a plan, or null where there is nothing to go to. */
export function stagePath(stage: (typeof STAGES)[number], planId: string | null): string | null {
  if (stage.path === null) return null;
  if (planId === null) return stage.name === 'Gather' ? '/' : null;
  return `/plans/${planId}/${stage.path}`;
}
