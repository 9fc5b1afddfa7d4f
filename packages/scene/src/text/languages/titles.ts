import type { LanguageCode } from './language';

/** What titles say by themselves, in one language. Days are words already; counts are numbers. */
export interface TitleWords {
  /** What a title is about where the page shows a part: `Hall refit (4 of 77 activities)`. */
  part(plan: string, shown: number, of: number): string;
  /** The end where something open has none: `… is known to 13 March; 25 of 96 have no dates`. */
  knownTo(about: string, day: string, without: number, of: number): string;
  /** The end where it was worked out rather than stated. */
  expectedTo(about: string, day: string): string;
  /** What decides the end. */
  decide(about: string, count: number, day: string): string;
  /** What nothing leads to by links, so that nothing decides it. */
  nothingDecides(about: string, day: string): string;
  linkedSoFar(lead: number, of: number): string;
  /** By how much what comes next to it may slip. */
  nextFloat(days: string, one: boolean): string;
  weeks(about: string, weeks: number, starts: number, ends: number): string;
  nextMilestone(name: string, day: string): string;
  behind(about: string, behind: number, of: number): string;
  most(name: string, days: number): string;
  nothingBehind(about: string, of: number): string;
  endLater(days: number): string;
  endKept: string;
  shared(about: string, who: number, name: string, most: number, of: number): string;
  worstPart(about: string, name: string, days: number): string;
  longestPart(about: string, name: string, day: string): string;
  progress(about: string, done: number, begun: number, of: number): string;
  toCome(about: string, left: number, of: number): string;
  allReached(about: string, of: number): string;
  changed(about: string, moved: number, fresh: number): string;
  /** What the foot counts of ends that nobody stated. */
  workedOut(count: number): string;
  takenAsPromised(count: number): string;
}

const s = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;

export const TITLE_WORDS: Readonly<Record<LanguageCode, TitleWords>> = {
  en: {
    part: (plan, n, of) => `${plan} (${n} of ${s(of, 'activity', 'activities')})`,
    knownTo: (about, day, n, of) => `${about} is known to ${day}; ${n} of ${of} ${n === 1 ? 'has' : 'have'} no dates`,
    expectedTo: (about, day) => `${about} is expected to run to ${day}`,
    decide: (about, n, day) => `${about}: ${s(n, 'activity decides', 'activities decide')} the end on ${day}`,
    nothingDecides: (about, day) => `${about} ends on ${day}; no links lead there, so nothing is known to decide it`,
    linkedSoFar: (lead, of) => `, as far as it is linked: ${lead} of ${of} lead to the end`,
    nextFloat: (n, one) => `; the others can slip by ${n} working ${one ? 'day' : 'days'} or more`,
    weeks: (about, weeks, starts, ends) =>
      `${about}: ${starts} ${starts === 1 ? 'starts' : 'start'} and ${ends} ${ends === 1 ? 'ends' : 'end'} in the next ${weeks === 1 ? 'week' : `${weeks} weeks`}`,
    nextMilestone: (name, day) => `; next milestone: ${name}, ${day}`,
    behind: (about, n, of) =>
      `${about}: ${n} of ${s(of, 'activity', 'activities')} ${n === 1 ? 'is' : 'are'} behind the promise`,
    most: (name, n) => `, ${name} most: ${s(n, 'working day', 'working days')}`,
    nothingBehind: (about, of) => `${about}: none of ${s(of, 'activity', 'activities')} is behind the promise`,
    endLater: (n) => `; the end is ${s(n, 'working day', 'working days')} later`,
    endKept: '; the end holds',
    shared: (about, who, name, most, of) =>
      `${about}: ${who} share ${s(of, 'activity', 'activities')}; ${name} has most, ${most}`,
    worstPart: (about, name, n) =>
      `${about}: ${name} is furthest behind its promise, ${s(n, 'working day', 'working days')}`,
    longestPart: (about, name, day) => `${about}: ${name} runs longest, to ${day}`,
    progress: (about, done, begun, of) =>
      `${about}: ${done} of ${s(of, 'activity', 'activities')} complete, ${begun} in progress, ${of - done - begun} to come`,
    toCome: (about, left, of) => `${about}: ${left} of ${s(of, 'milestone', 'milestones')} to come`,
    allReached: (about, of) => `${about}: ${of === 1 ? 'its milestone is' : `all ${of} milestones are`} reached`,
    changed: (about, moved, fresh) => `${about}: ${moved} moved and ${fresh} new since then`,
    workedOut: (n) => `${s(n, 'date', 'dates')} worked out`,
    takenAsPromised: (n) => `${s(n, 'date', 'dates')} as promised`,
  },
  de: {
    part: (plan, n, of) => `${plan} (${n} von ${s(of, 'Vorgang', 'Vorgängen')})`,
    knownTo: (about, day, n, of) =>
      `${about} ist bis ${day} bekannt; ${n} von ${of} ${n === 1 ? 'hat' : 'haben'} keine Termine`,
    expectedTo: (about, day) => `${about} läuft voraussichtlich bis ${day}`,
    decide: (about, n, day) =>
      `${about}: ${s(n, 'Vorgang entscheidet', 'Vorgänge entscheiden')} über das Ende am ${day}`,
    nothingDecides: (about, day) =>
      `${about} endet am ${day}; keine Verknüpfung führt dorthin, also ist nicht bekannt, was darüber entscheidet`,
    linkedSoFar: (lead, of) => `, soweit verknüpft: ${lead} von ${of} führen zum Ende`,
    nextFloat: (n, one) => `; die anderen haben ${n} ${one ? 'Arbeitstag' : 'Arbeitstage'} Puffer oder mehr`,
    weeks: (about, weeks, starts, ends) =>
      `${about}: ${starts} ${starts === 1 ? 'beginnt' : 'beginnen'} und ${ends} ${ends === 1 ? 'endet' : 'enden'} in ${weeks === 1 ? 'der nächsten Woche' : `den nächsten ${weeks} Wochen`}`,
    nextMilestone: (name, day) => `; nächster Meilenstein: ${name}, ${day}`,
    behind: (about, n, of) => `${about}: ${n} von ${s(of, 'Vorgang', 'Vorgängen')} hinter der Zusage`,
    most: (name, n) => `, am meisten ${name}: ${s(n, 'Arbeitstag', 'Arbeitstage')}`,
    nothingBehind: (about, of) => `${about}: keiner von ${s(of, 'Vorgang', 'Vorgängen')} ist hinter der Zusage`,
    endLater: (n) => `; das Ende kommt ${s(n, 'Arbeitstag', 'Arbeitstage')} später`,
    endKept: '; das Ende bleibt',
    shared: (about, who, name, most, of) =>
      `${about}: ${who} teilen sich ${s(of, 'Vorgang', 'Vorgänge')}; die meisten hat ${name}, ${most}`,
    worstPart: (about, name, n) =>
      `${about}: am weitesten hinter der Zusage ist ${name}, ${s(n, 'Arbeitstag', 'Arbeitstage')}`,
    longestPart: (about, name, day) => `${about}: am längsten läuft ${name}, bis ${day}`,
    progress: (about, done, begun, of) =>
      `${about}: ${done} von ${s(of, 'Vorgang', 'Vorgängen')} fertig, ${begun} in Arbeit, ${of - done - begun} noch offen`,
    toCome: (about, left, of) => `${about}: ${left} von ${s(of, 'Meilenstein', 'Meilensteinen')} noch offen`,
    allReached: (about, of) =>
      `${about}: ${of === 1 ? 'der Meilenstein ist' : `alle ${of} Meilensteine sind`} erreicht`,
    changed: (about, moved, fresh) => `${about}: ${moved} verschoben und ${fresh} neu seither`,
    workedOut: (n) => `${s(n, 'Termin', 'Termine')} errechnet`,
    takenAsPromised: (n) => `${s(n, 'Termin', 'Termine')} wie zugesagt`,
  },
  fr: {
    part: (plan, n, of) => `${plan} (${n} sur ${s(of, 'activité', 'activités')})`,
    knownTo: (about, day, n, of) => `${about} : connu jusqu’au ${day} ; ${n} sur ${of} sans dates`,
    expectedTo: (about, day) => `${about} : fin prévisible le ${day}`,
    decide: (about, n, day) => `${about} : ${s(n, 'activité décide', 'activités décident')} de la fin le ${day}`,
    nothingDecides: (about, day) =>
      `${about} : fin le ${day} ; aucun lien n’y mène, on ne sait donc pas ce qui en décide`,
    linkedSoFar: (lead, of) => `, dans la mesure des liens : ${lead} sur ${of} mènent à la fin`,
    nextFloat: (n, one) => ` ; les autres ont ${n} ${one ? 'jour ouvré' : 'jours ouvrés'} de marge ou plus`,
    weeks: (about, weeks, starts, ends) =>
      `${about} : ${starts} ${starts === 1 ? 'commence' : 'commencent'} et ${ends} ${ends === 1 ? 'finit' : 'finissent'} dans ${weeks === 1 ? 'la semaine qui vient' : `les ${weeks} semaines qui viennent`}`,
    nextMilestone: (name, day) => ` ; prochain jalon : ${name}, ${day}`,
    behind: (about, n, of) => `${about} : ${n} sur ${s(of, 'activité', 'activités')} en retard sur la promesse`,
    most: (name, n) => `, surtout ${name} : ${s(n, 'jour ouvré', 'jours ouvrés')}`,
    nothingBehind: (about, of) =>
      `${about} : aucune ${of === 1 ? 'activité' : `des ${of} activités`} en retard sur la promesse`,
    endLater: (n) => ` ; la fin vient ${s(n, 'jour ouvré', 'jours ouvrés')} plus tard`,
    endKept: ' ; la fin tient',
    shared: (about, who, name, most, of) =>
      `${about} : ${who} se partagent ${s(of, 'activité', 'activités')} ; ${name} en a le plus, ${most}`,
    worstPart: (about, name, n) =>
      `${about} : ${name} a le plus de retard sur la promesse, ${s(n, 'jour ouvré', 'jours ouvrés')}`,
    longestPart: (about, name, day) => `${about} : ${name} dure le plus longtemps, jusqu’au ${day}`,
    progress: (about, done, begun, of) =>
      `${about} : ${done} sur ${s(of, 'activité achevée', 'activités achevées')}, ${begun} en cours, ${of - done - begun} à venir`,
    toCome: (about, left, of) => `${about} : ${left} sur ${s(of, 'jalon', 'jalons')} à venir`,
    allReached: (about, of) => `${about} : ${of === 1 ? 'le jalon est atteint' : `les ${of} jalons sont atteints`}`,
    changed: (about, moved, fresh) =>
      `${about} : ${s(moved, 'déplacée', 'déplacées')} et ${s(fresh, 'nouvelle', 'nouvelles')} depuis`,
    workedOut: (n) => s(n, 'date déduite', 'dates déduites'),
    takenAsPromised: (n) => `${s(n, 'date', 'dates')} comme promis`,
  },
  es: {
    part: (plan, n, of) => `${plan} (${n} de ${s(of, 'actividad', 'actividades')})`,
    knownTo: (about, day, n, of) => `${about}: conocido hasta el ${day}; ${n} de ${of} sin fechas`,
    expectedTo: (about, day) => `${about}: final previsto el ${day}`,
    decide: (about, n, day) => `${about}: ${s(n, 'actividad decide', 'actividades deciden')} el final el ${day}`,
    nothingDecides: (about, day) =>
      `${about} termina el ${day}; ningún vínculo lleva hasta ahí: no se sabe qué lo decide`,
    linkedSoFar: (lead, of) => `, hasta donde está vinculado: ${lead} de ${of} llevan al final`,
    nextFloat: (n, one) => `; las demás tienen ${n} ${one ? 'día laborable' : 'días laborables'} de holgura o más`,
    weeks: (about, weeks, starts, ends) =>
      `${about}: ${starts} ${starts === 1 ? 'empieza' : 'empiezan'} y ${ends} ${ends === 1 ? 'termina' : 'terminan'} en ${weeks === 1 ? 'la próxima semana' : `las próximas ${weeks} semanas`}`,
    nextMilestone: (name, day) => `; próximo hito: ${name}, ${day}`,
    behind: (about, n, of) => `${about}: ${n} de ${s(of, 'actividad', 'actividades')} por detrás de lo prometido`,
    most: (name, n) => `, sobre todo ${name}: ${s(n, 'día laborable', 'días laborables')}`,
    nothingBehind: (about, of) =>
      `${about}: ninguna de ${s(of, 'actividad', 'actividades')} por detrás de lo prometido`,
    endLater: (n) => `; el final llega ${s(n, 'día laborable', 'días laborables')} más tarde`,
    endKept: '; el final se mantiene',
    shared: (about, who, name, most, of) =>
      `${about}: ${who} se reparten ${s(of, 'actividad', 'actividades')}; ${name} tiene más, ${most}`,
    worstPart: (about, name, n) => `${about}: ${name} es lo más retrasado, ${s(n, 'día laborable', 'días laborables')}`,
    longestPart: (about, name, day) => `${about}: ${name} dura más, hasta el ${day}`,
    progress: (about, done, begun, of) =>
      `${about}: ${done} de ${s(of, 'actividad completa', 'actividades completas')}, ${begun} en curso, ${of - done - begun} por venir`,
    toCome: (about, left, of) => `${about}: ${left} de ${s(of, 'hito', 'hitos')} por venir`,
    allReached: (about, of) => `${about}: ${of === 1 ? 'el hito está alcanzado' : `los ${of} hitos están alcanzados`}`,
    changed: (about, moved, fresh) =>
      `${about}: ${s(moved, 'movida', 'movidas')} y ${s(fresh, 'nueva', 'nuevas')} desde entonces`,
    workedOut: (n) => s(n, 'fecha deducida', 'fechas deducidas'),
    takenAsPromised: (n) => `${s(n, 'fecha', 'fechas')} según lo prometido`,
  },
  it: {
    part: (plan, n, of) => `${plan} (${n} di ${s(of, 'attività', 'attività')})`,
    knownTo: (about, day, n, of) => `${about}: noto fino al ${day}; ${n} di ${of} senza date`,
    expectedTo: (about, day) => `${about}: fine prevista il ${day}`,
    decide: (about, n, day) => `${about}: ${s(n, 'attività decide', 'attività decidono')} la fine il ${day}`,
    nothingDecides: (about, day) => `${about} termina il ${day}; nessun legame vi porta: non si sa che cosa lo decide`,
    linkedSoFar: (lead, of) => `, per quanto è collegato: ${lead} di ${of} portano alla fine`,
    nextFloat: (n, one) => `; le altre hanno ${n} ${one ? 'giorno lavorativo' : 'giorni lavorativi'} di margine o più`,
    weeks: (about, weeks, starts, ends) =>
      `${about}: ${starts} ${starts === 1 ? 'inizia' : 'iniziano'} e ${ends} ${ends === 1 ? 'finisce' : 'finiscono'} ${weeks === 1 ? 'nella prossima settimana' : `nelle prossime ${weeks} settimane`}`,
    nextMilestone: (name, day) => `; prossima pietra miliare: ${name}, ${day}`,
    behind: (about, n, of) => `${about}: ${n} di ${s(of, 'attività', 'attività')} in ritardo sulla promessa`,
    most: (name, n) => `, soprattutto ${name}: ${s(n, 'giorno lavorativo', 'giorni lavorativi')}`,
    nothingBehind: (about, of) => `${about}: nessuna di ${s(of, 'attività', 'attività')} in ritardo sulla promessa`,
    endLater: (n) => `; la fine arriva ${s(n, 'giorno lavorativo', 'giorni lavorativi')} più tardi`,
    endKept: '; la fine tiene',
    shared: (about, who, name, most, of) =>
      `${about}: ${who} si dividono ${s(of, 'attività', 'attività')}; ${name} ne ha di più, ${most}`,
    worstPart: (about, name, n) =>
      `${about}: ${name} è la più in ritardo, ${s(n, 'giorno lavorativo', 'giorni lavorativi')}`,
    longestPart: (about, name, day) => `${about}: ${name} dura di più, fino al ${day}`,
    progress: (about, done, begun, of) =>
      `${about}: ${done} di ${s(of, 'attività completata', 'attività completate')}, ${begun} in corso, ${of - done - begun} da fare`,
    toCome: (about, left, of) => `${about}: ${left} di ${s(of, 'pietra miliare', 'pietre miliari')} da raggiungere`,
    allReached: (about, of) =>
      `${about}: ${of === 1 ? 'la pietra miliare è raggiunta' : `tutte le ${of} pietre miliari sono raggiunte`}`,
    changed: (about, moved, fresh) =>
      `${about}: ${s(moved, 'spostata', 'spostate')} e ${s(fresh, 'nuova', 'nuove')} da allora`,
    workedOut: (n) => s(n, 'data dedotta', 'date dedotte'),
    takenAsPromised: (n) => `${s(n, 'data', 'date')} come promesso`,
  },
  nl: {
    part: (plan, n, of) => `${plan} (${n} van ${s(of, 'activiteit', 'activiteiten')})`,
    knownTo: (about, day, n, of) =>
      `${about} is bekend tot ${day}; ${n} van ${of} ${n === 1 ? 'heeft' : 'hebben'} geen data`,
    expectedTo: (about, day) => `${about} loopt naar verwachting tot ${day}`,
    decide: (about, n, day) => `${about}: ${s(n, 'activiteit bepaalt', 'activiteiten bepalen')} het einde op ${day}`,
    nothingDecides: (about, day) =>
      `${about} eindigt op ${day}; geen koppeling leidt daarheen, dus is niet bekend wat het bepaalt`,
    linkedSoFar: (lead, of) => `, voor zover gekoppeld: ${lead} van ${of} leiden naar het einde`,
    nextFloat: (n, one) => `; de andere hebben ${n} ${one ? 'werkdag' : 'werkdagen'} speling of meer`,
    weeks: (about, weeks, starts, ends) =>
      `${about}: ${starts} ${starts === 1 ? 'begint' : 'beginnen'} en ${ends} ${ends === 1 ? 'eindigt' : 'eindigen'} in de komende ${weeks === 1 ? 'week' : `${weeks} weken`}`,
    nextMilestone: (name, day) => `; volgende mijlpaal: ${name}, ${day}`,
    behind: (about, n, of) => `${about}: ${n} van ${s(of, 'activiteit', 'activiteiten')} achter op de belofte`,
    most: (name, n) => `, ${name} het meest: ${s(n, 'werkdag', 'werkdagen')}`,
    nothingBehind: (about, of) => `${about}: geen van ${s(of, 'activiteit', 'activiteiten')} achter op de belofte`,
    endLater: (n) => `; het einde komt ${s(n, 'werkdag', 'werkdagen')} later`,
    endKept: '; het einde blijft',
    shared: (about, who, name, most, of) =>
      `${about}: ${who} delen ${s(of, 'activiteit', 'activiteiten')}; ${name} heeft de meeste, ${most}`,
    worstPart: (about, name, n) => `${about}: ${name} ligt het verst achter, ${s(n, 'werkdag', 'werkdagen')}`,
    longestPart: (about, name, day) => `${about}: ${name} loopt het langst, tot ${day}`,
    progress: (about, done, begun, of) =>
      `${about}: ${done} van ${s(of, 'activiteit', 'activiteiten')} voltooid, ${begun} bezig, ${of - done - begun} te gaan`,
    toCome: (about, left, of) => `${about}: ${left} van ${s(of, 'mijlpaal', 'mijlpalen')} te gaan`,
    allReached: (about, of) => `${about}: ${of === 1 ? 'de mijlpaal is bereikt' : `alle ${of} mijlpalen zijn bereikt`}`,
    changed: (about, moved, fresh) => `${about}: ${moved} verschoven en ${fresh} nieuw sindsdien`,
    workedOut: (n) => `${s(n, 'datum', 'data')} afgeleid`,
    takenAsPromised: (n) => `${s(n, 'datum', 'data')} zoals beloofd`,
  },
};
