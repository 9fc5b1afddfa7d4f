import { parseArgs } from 'node:util';
import { UnreadableFile } from '@clembo/formats';
import { PageRefused } from '@clembo/render/refused';
import { UsageError } from './fail';
import { loadPlan } from './load';

const HELP = `clembo: pages from schedule data, on the command line

  clembo schedule FILE [--json]          dates and float of every activity, as CSV or JSON
  clembo compose FILE [--kind KIND | --brief BRIEF.json | --briefs FOLDER | --exhibits] [--say SENTENCE]
         [--baseline OLD] [--model MODEL [--same FIELD=FIELD]] [--date DATE] [--locale en-GB]
         --out PAGE.(pdf|pptx|svg|png|html|xlsx) or --out FOLDER --formats pdf,pptx,...
                                         a page; without a brief, one that suits the plan;
                                         --briefs: a page for each brief of a folder; --exhibits: those that
                                         a .clembo file holds; all in one file, or each in a folder;
                                         --kind timeline, slips, bars, amounts, trend, curves, months,
                                         snapshot, network, handoffs, linear or build;
                                         --model: what is built; --same "Work: Code=reference": whose elements
                                         belong to which activities;
                                         --say "milestones only, in lanes by phase": what is other than that;
                                         --baseline: what was promised; --date: of the files;
                                         --locale: whose notation numbers are written in;
                                         an exhibit over several pages is one PDF, or files with their number
  clembo folio FILE [--folio NAME | --briefs FOLDER] [--name NAME] [--baseline OLD]
         --out FOLIO.(pdf|pptx|html) or --out FOLDER --formats pdf,pptx,html,png
                                         the exhibits of a .clembo file, or a folder of briefs, bound: a cover with
                                         contents, numbers, links; the web page presents itself; --folio: a
                                         folio that the file itself holds, as it was put together
  clembo intake FILE [--strict] [--out PLAN.(clembo|json)] [--json]
                                         what every column is read as, how much of it, what cannot be read;
                                         a plan of it; --strict: nothing while any cell cannot be read
  clembo refresh PLAN FILE [--accept KINDS] [--out PLAN] [--json]
                                         what the next file says otherwise than the plan's source did;
                                         --accept all, none, or added,removed,moved,...: written into PLAN
  clembo convert FILE --out PLAN.(csv|xlsx|ics|ifc|json|clembo|graphml|dot)
                                         the plan in another form
  clembo brief --kind KIND               a default brief to change
  clembo check FILE [--baseline OLD] [--json]
                                         findings on the data, and the 14-point assessment
  clembo changes OLD NEW [--match FIELDS] [--json]
                                         what was added, removed, moved, renamed, relinked
  clembo variance OLD NEW [--json]       NEW against OLD as its baseline, and earned value
  clembo standing FILE [--against OLD] [--status-date DATE] [--json]
                                         how the plan stands against what was promised: days late, percent by
                                         time and by effort, earned value, snapshot, what slipped
  clembo model MODEL [--json]            what a model holds: elements by class and storey
  clembo matches FILE [--model MODEL] [--same FIELD=FIELD] [--date DATE] [--json] [--out MATCHES.csv|MODEL.glb]
                                         how much of a model is matched to work, and how it stands on a date;
                                         the matches as a table, or the model on that date
  clembo linear FILE [--buffer DAYS] [--distance LENGTH] [--json]
                                         flowlines, clashes, and starts that keep a buffer
  clembo balance FILE --buffer 4w [--distance LENGTH] [--json]
                                         who along a line would start when, to keep that buffer from those
                                         before: by how many days each moves, and when all is done

FILE is CSV, XLSX, iCalendar, a building model with a schedule (IFC), Clembo's own JSON, or a .clembo file with a
plan and all that belongs to it, of which the working edition counts. Of tables the headings
are guessed; of a workbook the sheet that is most like a plan is read.

  --map MAP.json          what columns mean: {"Heading": "start", "Trade": "code:Trade", "X": "skip"}
  --sheet NAME            the sheet of a workbook
  --date-order dmy|mdy|ymd
                          where the dates leave it open
  --year YEAR             of dates that are written without one
  --start DATE            earliest start of what has no predecessor (ISO dates)
  --source drawn|computed which dates count: those of the source, or those that lengths and links give
  --as-promised           what has only promised dates takes these as they stand
  --calendar five-day|six-day|seven-day|FILE.json
  --holidays GB|DE-BE|…   public holidays of a country, or of a part of one, are days off
  --match name,Trade      where references are not kept: what tells activities apart
  --status-date DATE      what is not done by the end of that day comes after it
  --retained | --override whether work in progress waits for unfinished predecessors

Predecessors are references separated by commas or semicolons, each with link type and lag if any:
A12, A12 SS, A12 FS+3d, A12 FF-2d. A finish is the day on which the work ends; float is in working days.
`;

const OPTIONS = {
  help: { type: 'boolean', short: 'h' },
  json: { type: 'boolean' },
  brief: { type: 'string' },
  out: { type: 'string' },
  kind: { type: 'string' },
  map: { type: 'string' },
  sheet: { type: 'string' },
  'date-order': { type: 'string' },
  year: { type: 'string' },
  start: { type: 'string' },
  source: { type: 'string' },
  calendar: { type: 'string' },
  'status-date': { type: 'string' },
  'as-promised': { type: 'boolean' },
  retained: { type: 'boolean' },
  override: { type: 'boolean' },
  baseline: { type: 'string' },
  against: { type: 'string' },
  locale: { type: 'string' },
  briefs: { type: 'string' },
  exhibits: { type: 'boolean' },
  formats: { type: 'string' },
  say: { type: 'string' },
  date: { type: 'string' },
  name: { type: 'string' },
  folio: { type: 'string' },
  model: { type: 'string' },
  same: { type: 'string' },
  buffer: { type: 'string' },
  distance: { type: 'string' },
  holidays: { type: 'string' },
  match: { type: 'string' },
  accept: { type: 'string' },
  strict: { type: 'boolean' },
} as const;

/** Text for a terminal: names in a stranger's file must not steer it. Line ends and tabs stay. */
const printable = (text: string): string => text.replace(/[^\P{Cc}\t\r\n]/gu, ' ');

/** Runs one command; returns the exit code: 0, or 2 for something the person can put right. */
export async function main(argv: string[]): Promise<number> {
  try {
    process.stdout.write(printable(await run(argv)));
    return 0;
  } catch (error) {
    const known = error instanceof UsageError || error instanceof UnreadableFile || error instanceof PageRefused;
    const parsing = (error as NodeJS.ErrnoException).code?.startsWith('ERR_PARSE_ARGS');
    if (!known && !parsing) throw error;
    process.stderr.write(`clembo: ${printable((error as Error).message)}\n`);
    return 2;
  }
}

async function run(argv: string[]): Promise<string> {
  const { values, positionals } = parseArgs({ args: argv, options: OPTIONS, allowPositionals: true });
  const [command, ...files] = positionals;
  if (values.help || command === undefined) return HELP;
  const asJson = values.json === true;
  const wanted = ['changes', 'variance', 'refresh'].includes(command) ? 2 : command === 'brief' ? 0 : 1;
  if (files.length > wanted)
    throw new UsageError(
      `“${files.slice(wanted).join(' ')}” is too much: \`clembo ${command}\` takes ${wanted === 2 ? 'two files' : wanted === 1 ? 'one file' : 'no file'}.`,
    );
  const file = (k: number): string => {
    if (files[k] === undefined)
      throw new UsageError(
        `\`clembo ${command}\` needs ${wanted === 2 ? 'two files, the old one and the new one' : 'a file'}. \`clembo --help\` shows how.`,
      );
    return files[k];
  };
  const load = (k = 0) => loadPlan(file(k), values);
  switch (command) {
    case 'schedule':
      return (await import('./commands/schedule')).scheduleCommand(await load(), asJson);
    case 'compose':
      return (await import('./commands/compose')).composeCommand(
        await load(),
        values.baseline === undefined ? null : await loadPlan(values.baseline, values),
        values,
      );
    case 'intake':
      return (await import('./commands/intake')).intakeCommand(file(0), values, asJson);
    case 'refresh':
      return (await import('./commands/refresh')).refreshCommand(file(0), file(1), values, asJson);
    case 'convert':
      return (await import('./commands/convert')).convertCommand(await load(), values.out);
    case 'brief':
      return defaultBrief(values.kind ?? 'timeline');
    case 'check':
      return (await import('./commands/check')).checkCommand(
        await load(),
        values.baseline === undefined ? null : await loadPlan(values.baseline, values),
        asJson,
      );
    case 'changes':
      return (await import('./commands/changes')).changesCommand(await load(0), await load(1), values.match, asJson);
    case 'variance':
      return (await import('./commands/variance')).varianceCommand(await load(0), await load(1), asJson);
    case 'standing':
      return (await import('./commands/standing')).standingCommand(
        await load(),
        values.against === undefined ? null : await loadPlan(values.against, { ...values, 'status-date': undefined }),
        values.locale,
        asJson,
      );
    case 'folio':
      return (await import('./commands/folio')).folioCommand(
        await load(),
        values.baseline === undefined ? null : await loadPlan(values.baseline, values),
        values,
      );
    case 'model':
      return (await import('./commands/model')).modelCommand(file(0), asJson);
    case 'matches':
      return (await import('./commands/matches')).matchesCommand(await load(), values, asJson);
    case 'linear':
      return (await import('./commands/linear')).linearCommand(await load(), values.buffer, values.distance, asJson);
    case 'balance':
      return (await import('./commands/balance')).balanceCommand(await load(), values.buffer, values.distance, asJson);
    default:
      throw new UsageError(`there is no command “${command}”. \`clembo --help\` lists them.`);
  }
}

/** The default brief of a kind of exhibit, as JSON to change. */
async function defaultBrief(kind: string): Promise<string> {
  const { EXHIBITS } = await import('@clembo/scene');
  const { exhibitName } = await import('./exhibitName');
  return `${JSON.stringify(EXHIBITS[exhibitName(kind)].defaults(), null, 2)}\n`;
}
