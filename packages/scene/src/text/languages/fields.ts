import type { LanguageCode } from './language';

type Other = Exclude<LanguageCode, 'en'>;
const ORDER: readonly Other[] = ['de', 'fr', 'es', 'it', 'nl'];

/** What fields are called at the head of a column, by language; English has the names by which conditions ask for them. */
const NAMES: Readonly<Record<string, readonly string[]>> = {
  ref: ['Nummer', 'référence', 'referencia', 'riferimento', 'kenmerk'],
  name: ['Name', 'nom', 'nombre', 'nome', 'naam'],
  kind: ['Art', 'type', 'tipo', 'tipo', 'soort'],
  status: ['Status', 'état', 'estado', 'stato', 'status'],
  group: ['Gruppe darüber', 'groupe supérieur', 'grupo superior', 'gruppo superiore', 'groep erboven'],
  level: ['Ebene', 'niveau', 'nivel', 'livello', 'niveau'],
  start: ['Beginn', 'début', 'inicio', 'inizio', 'begin'],
  finish: ['Ende', 'fin', 'fin', 'fine', 'einde'],
  days: ['Arbeitstage', 'jours ouvrés', 'días laborables', 'giorni lavorativi', 'werkdagen'],
  float: ['Puffer', 'marge', 'holgura', 'margine', 'speling'],
  free: ['freier Puffer', 'marge libre', 'holgura libre', 'margine libero', 'vrije speling'],
  percent: ['Prozent getan', 'pour cent fait', 'porcentaje hecho', 'percento fatto', 'procent gedaan'],
  percentTime: [
    'Prozent nach Zeit',
    'pour cent en temps',
    'porcentaje en tiempo',
    'percento in tempo',
    'procent in tijd',
  ],
  percentEffort: [
    'Prozent nach Aufwand',
    'pour cent en charge',
    'porcentaje en esfuerzo',
    'percento in lavoro',
    'procent in werk',
  ],
  responsible: ['verantwortlich', 'responsable', 'responsable', 'responsabile', 'verantwoordelijk'],
  effort: ['Aufwand', 'charge', 'esfuerzo', 'lavoro', 'werk'],
  cost: ['Kosten', 'coût', 'coste', 'costo', 'kosten'],
  actualEffort: ['Ist-Aufwand', 'charge réelle', 'esfuerzo real', 'lavoro effettivo', 'werkelijk werk'],
  actualCost: ['Ist-Kosten', 'coût réel', 'coste real', 'costo effettivo', 'werkelijke kosten'],
  effortOff: [
    'Aufwand gegen Budget',
    'charge sur budget',
    'esfuerzo sobre presupuesto',
    'lavoro su preventivo',
    'werk tegen budget',
  ],
  costOff: [
    'Kosten gegen Budget',
    'coût sur budget',
    'coste sobre presupuesto',
    'costo su preventivo',
    'kosten tegen budget',
  ],
  quantity: ['Menge', 'quantité', 'cantidad', 'quantità', 'hoeveelheid'],
  placeFrom: ['von Ort', 'de (lieu)', 'desde (lugar)', 'da (luogo)', 'van plaats'],
  placeTo: ['bis Ort', 'à (lieu)', 'hasta (lugar)', 'a (luogo)', 'tot plaats'],
  line: ['Linie', 'ligne', 'línea', 'linea', 'lijn'],
  rate: [
    'Leistung je Tag und Kolonne',
    'cadence par équipe',
    'ritmo por cuadrilla',
    'resa per squadra',
    'tempo per ploeg',
  ],
  output: [
    'Menge je Tag und Kolonne',
    'quantité par jour et équipe',
    'cantidad diaria por cuadrilla',
    'quantità al giorno per squadra',
    'hoeveelheid per dag per ploeg',
  ],
  crews: ['Kolonnen', 'équipes', 'cuadrillas', 'squadre', 'ploegen'],
  occupies: [
    'belegt seinen Abschnitt',
    'occupe son tronçon',
    'ocupa su tramo',
    'occupa il suo tratto',
    'bezet zijn vak',
  ],
  dailyDistance: ['Strecke je Tag', 'distance par jour', 'distancia por día', 'distanza al giorno', 'afstand per dag'],
  calendar: ['Kalender', 'calendrier', 'calendario', 'calendario', 'kalender'],
  notes: ['Anmerkungen', 'notes', 'notas', 'note', 'opmerkingen'],
  predecessors: ['Vorgänger', 'prédécesseurs', 'predecesores', 'predecessori', 'voorgangers'],
  successors: ['Nachfolger', 'successeurs', 'sucesores', 'successori', 'opvolgers'],
  critical: ['kritisch', 'critique', 'crítico', 'critico', 'kritiek'],
  off: [
    'berechnet gegen angegeben',
    'calculé sur donné',
    'calculado sobre dado',
    'calcolato su dato',
    'berekend tegen opgegeven',
  ],
  actualStart: ['Ist-Beginn', 'début réel', 'inicio real', 'inizio effettivo', 'werkelijk begin'],
  actualFinish: ['Ist-Ende', 'fin réelle', 'fin real', 'fine effettiva', 'werkelijk einde'],
  deadline: ['Frist', 'échéance', 'fecha límite', 'scadenza', 'uiterste datum'],
  constraint: ['Einschränkung', 'contrainte', 'restricción', 'vincolo', 'beperking'],
  stretches: ['Abschnitte', 'tronçons', 'tramos', 'tratti', 'delen'],
  resources: ['Ressourcen', 'ressources', 'recursos', 'risorse', 'middelen'],
  remaining: ['Tage übrig', 'jours restants', 'días restantes', 'giorni restanti', 'resterende dagen'],
  daysDone: ['Tage getan', 'jours faits', 'días hechos', 'giorni fatti', 'dagen gedaan'],
  daysToGo: ['Tage zu tun', 'jours à faire', 'días por hacer', 'giorni da fare', 'dagen te gaan'],
  promisedStart: ['zugesagter Beginn', 'début promis', 'inicio prometido', 'inizio promesso', 'beloofd begin'],
  promisedFinish: ['zugesagtes Ende', 'fin promise', 'fin prometido', 'fine promessa', 'beloofd einde'],
  late: ['Abweichung', 'écart', 'desvío', 'scarto', 'afwijking'],
  band: [
    'gegen die Zusage',
    'face à la promesse',
    'frente a lo prometido',
    'rispetto al promesso',
    'tegenover de belofte',
  ],
};

/** Shorter English heads than the names by which conditions ask. */
const HEADS: Readonly<Record<string, string>> = {
  late: 'off by',
  percent: 'percent done',
  effort: 'effort',
  actualEffort: 'actual effort',
  promisedStart: 'promised start',
  promisedFinish: 'promised',
  effortOff: 'effort against budget',
  costOff: 'cost against budget',
};

/** The head of a column of a field; `name` where the language has no word for it, as for a plan's own fields. */
export function fieldHead(language: LanguageCode, id: string, name: string): string {
  if (language === 'en') return HEADS[id] ?? name;
  return NAMES[id]?.[ORDER.indexOf(language)] ?? name;
}
