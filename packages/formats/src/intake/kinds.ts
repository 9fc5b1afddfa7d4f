import { plainHeading } from './fields';

export type ReadKind = 'activity' | 'milestone' | 'startMilestone' | 'finishMilestone' | 'levelOfEffort' | 'summary';

const KINDS: ReadonlyMap<string, ReadKind> = new Map(
  (
    [
      [
        'activity',
        'activity,task,work,vorgang,aktivität,aufgabe,tâche,activité,tarea,actividad,attività,taak,activiteit,tarefa,atividade',
      ],
      ['milestone', 'milestone,ms,meilenstein,gate,jalon,hito,pietra miliare,mijlpaal,marco,key date'],
      ['startMilestone', 'start milestone,startmeilenstein'],
      ['finishMilestone', 'finish milestone,end milestone,endmeilenstein'],
      ['levelOfEffort', 'level of effort,loe,supporting work,support,hammock'],
      [
        'summary',
        'summary,group,heading,phase,section,sammelvorgang,phase summary,wbs,récapitulative,resumen,riepilogo,samenvatting,resumo',
      ],
    ] as const
  ).flatMap(([kind, words]) => words.split(',').map((word) => [plainHeading(word), kind] as const)),
);

/** Reads the kind of an activity; null when the word means none. */
export const readKind = (text: string): ReadKind | null =>
  text === '' || text.length > 60 ? null : (KINDS.get(plainHeading(text)) ?? null);
