import { columnLetters } from '../table/table';

/** A cell (or row) that could not be read as it stands: data; the words are made by {@link problemWords}. */
export interface Problem {
  code:
    | 'notADate'
    | 'noYear'
    | 'weekdayDiffers'
    | 'openMonth'
    | 'openPercent'
    | 'openUnit'
    | 'notADuration'
    | 'negativeDuration'
    | 'notANumber'
    | 'rateWithoutTime'
    | 'otherCurrency'
    | 'notAPercent'
    | 'notYesNo'
    | 'notALevel'
    | 'notAKind'
    | 'unknownCalendar'
    | 'unknownPredecessor'
    | 'unknownParent'
    | 'indentIgnored'
    | 'duplicateReference'
    | 'finishBeforeStart'
    | 'nothingUsable'
    | 'tooLong'
    | 'tooLarge'
    | 'tooMany'
    | 'notUsable';
  source: string;
  sheet: string | null;
  /** As a spreadsheet counts them, from 1. */
  row: number;
  /** Position of the column, from 0; -1 for the whole row. */
  column: number;
  heading: string;
  value: string;
  /** The activities that it is about, where the row does not tell. */
  refs?: string[];
  /** Something further that the words name. */
  detail?: string;
}

export function problemPlace(p: Problem): string {
  const sheet = p.sheet ? `, sheet ${p.sheet}` : '';
  return `${p.source}${sheet}, row ${p.row}${p.column >= 0 ? `, column ${columnLetters(p.column)}${p.heading ? ` “${p.heading}”` : ''}` : ''}`;
}

/** What is wrong and what was expected, in one sentence. */
export function problemWords(p: Problem): string {
  const v = `“${p.value.length > 60 ? `${p.value.slice(0, 57)}…` : p.value}”`;
  switch (p.code) {
    case 'notADate':
      return `${v} is not a date from 1900 to 2299. Expected a date such as 2026-09-14 or 14 Sep 2026; the cell is left empty.`;
    case 'noYear':
      return `${v} has no year, and nothing says which one. Until that is said, the cell is left empty.`;
    case 'weekdayDiffers':
      return `${v}: ${p.detail} is another weekday. One of the two is wrong; the cell is left empty.`;
    case 'openMonth':
      return `${v} may be a month or one of its days, and the column does not settle it. Until that is said, the cell is left empty.`;
    case 'openPercent':
      return `${v} may be a share of one or a percentage, and the column does not settle it. Until that is said, the cell is left empty.`;
    case 'openUnit':
      return `${v} may be minutes or months, and nothing beside it settles it. Until that is said, the cell is left empty.`;
    case 'notADuration':
      return `${v} is not a duration. Expected an amount such as 10, 10 d, 2 weeks or 16 h; the cell is left empty.`;
    case 'negativeDuration':
      return `${v} is a negative duration; work takes time forwards. The cell is left empty.`;
    case 'notANumber':
      return `${v} is not a number that its column settles (such as 1250 or 1,250.50); the cell is left empty.`;
    case 'rateWithoutTime':
      return `${v} is a rate, and nothing says for which time. Say it in the details of the column: an hour, a shift, a day, a week or a month. Until then it is not read.`;
    case 'otherCurrency':
      return `${v} is in another currency than the other amounts (${p.detail}); a plan has one. The cell is left empty.`;
    case 'notAPercent':
      return `${v} is not a percentage from 0 to 100; the cell is left empty.`;
    case 'notYesNo':
      return `${v} is neither yes nor no; it is read as no.`;
    case 'notALevel':
      return `${v} is not an outline level. Expected a whole number from 1; the row is kept at the level of the row above.`;
    case 'notAKind':
      return `${v} is not a kind of activity. Expected activity, milestone, level of effort or summary; it is read as activity.`;
    case 'unknownCalendar':
      return `${v} is not a calendar of this plan. Expected ${p.detail}; the plan's own calendar is used.`;
    case 'unknownPredecessor':
      return `${v} does not name an activity of this table. Expected a reference, then link type and lag if any, such as A12 FS+3d; the link is left out.`;
    case 'unknownParent':
      return `${v} does not name an activity of this table; the row is put at the top level.`;
    case 'indentIgnored':
      return `${v} begins with blanks, but the row above it (${p.detail}) is work of its own; it is not put below that row. Remove the blanks, or say the outline in a column.`;
    case 'duplicateReference':
      return `The reference ${v} stands already in row ${p.detail}; this row is given a reference of its own.`;
    case 'finishBeforeStart':
      return `The finish ${v} lies before the start ${p.detail}; the row is taken without its finish.`;
    case 'nothingUsable':
      return 'The row has no name, no date and no duration that could be read; it is left out.';
    case 'notUsable':
      return `${v} cannot be used (${p.detail}); it is left out.`;
    case 'tooLarge':
      return `${v} is more than can be kept (${p.detail}); the cell is left empty.`;
    case 'tooMany':
      return `The cell lists more than ${p.detail} predecessors; the others are left out.`;
    case 'tooLong':
      return `The text is longer than ${p.detail} characters; it is cut there.`;
  }
}
