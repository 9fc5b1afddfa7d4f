import { PAGES } from '../../packages/scene/src/index';
import type { RandomPage } from './randomPages';
import type { Box, PageShape, PageText, ReadPage } from './readPage';
import { contrast } from './contrast';
import { expectedItems } from './expected';

const MARKS = new Set(['bar', 'milestone', 'summary']);
const overX = (a: Box, b: Box, by = 0) => a.left < b.right + by && b.left < a.right + by;
const overY = (a: Box, b: Box, by = 0) => a.top < b.bottom + by && b.top < a.bottom + by;
const over = (a: Box, b: Box, byX = 0, byY = byX) => overX(a, b, byX) && overY(a, b, byY);
const within = (a: Box, b: Box, by = 0.2) =>
  a.left >= b.left - by && a.right <= b.right + by && a.top >= b.top - by && a.bottom <= b.bottom + by;
const distance = (a: Box, b: Box) =>
  Math.hypot(Math.max(0, a.left - b.right, b.left - a.right), Math.max(0, a.top - b.bottom, b.top - a.bottom));

/** Pairs of boxes of two lists that could touch, found by sweeping from the left. */
export function pairs<A extends Box, B extends Box>(
  as: A[],
  bs: B[],
  reach: number,
  visit: (a: A, b: B) => void,
): void {
  const list = [...bs].sort((p, q) => p.left - q.left);
  const widest = list.reduce((w, b) => Math.max(w, b.right - b.left), 0);
  for (const a of as) {
    let [low, high] = [0, list.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (list[middle]!.left < a.left - widest - reach) low = middle + 1;
      else high = middle;
    }
    for (let k = low; k < list.length && list[k]!.left <= a.right + reach; k++)
      if ((a as unknown) !== list[k]) visit(a, list[k]!);
  }
}

/** What is wrong with a written page, as `kind: what`. Nothing here asks the scene; only the file and the plan. */
export function faultsOf(page: ReadPage, given: RandomPage, pages: ReadPage[] = [page]): string[] {
  const faults: string[] = [];
  const say = (kind: string, what: string) => faults.push(`${kind}: ${what}`);
  const by = (role: string) => page.texts.filter((t) => t.role === role);
  const labels = by('label');
  const marks = page.shapes.filter((s) => MARKS.has(s.role) && s.ref !== null);
  const promises = page.shapes.filter((s) => s.role === 'promised' && s.ref !== null);
  const readable = by('notice').length === 0;
  checkTexts(page, given, say);
  checkLines(page, say);
  if (readable) {
    checkLabels(page, labels, marks, promises, say);
    checkMarks(page, marks, given, say);
    checkLanes(page, labels, marks, say);
    checkNames(page, given, labels, say);
    // The last of several pages holds what is left.
    if (pages.length === 1) checkFilled(page, marks, say);
    checkPeriods(page, given, say);
    checkLegend(page, say);
  }
  // One of several pages may say that it cannot be read.
  const all = pages.every((p) => !p.texts.some((t) => t.role === 'notice'));
  checkItems(page, given, all ? pages : [], say);
  return faults;
}

export type Say = (kind: string, what: string) => void;

export function checkTexts(page: ReadPage, { brief }: { brief: { page: keyof typeof PAGES } }, say: Say): void {
  const { texts, width, height } = page;
  if (!texts.some((t) => t.role === 'title' && t.text.trim() !== '')) say('no title', '');
  for (const t of texts) {
    if (t.left < 0 || t.right > width || t.top < 0 || t.bottom > height) say('text off the page', t.text);
    if (t.size < PAGES[brief.page].leastType - 0.01) say('type too small', `${t.size} ${t.text}`);
    // biome-ignore lint: control characters are what is looked for
    if (/[\u0000-\u001f\u007f-\u009f]/.test(t.text)) say('control character', JSON.stringify(t.text));
  }
  const pictures = page.shapes.filter((s) => s.role === 'logo');
  pairs(texts, pictures, 0, (t, p) => {
    if (over(t, p)) say('text on the picture', t.text);
  });
  for (const p of pictures) if (p.right > width || p.bottom > height) say('picture off the page', '');
  pairs(texts, texts, 1.5, (a, b) => {
    if (a.left > b.left || (a.left === b.left && a.text > b.text)) return;
    if (overX(a, b, 1.45) && overY(a, b, 0)) say('texts run together', `${a.role} “${a.text}” ${b.role} “${b.text}”`);
  });
  const sizes = (role: string) => texts.filter((t) => t.role === role).map((t) => t.size);
  const label = Math.max(0, ...sizes('label'));
  for (const role of ['lane', 'scale'])
    if (Math.min(99, ...sizes(role)) < label - 0.01) say('smaller than labels', role);
}

const LINES = new Set(['grid', 'status', 'laneRule', 'scale', 'stem', 'strand', 'link', 'date']);

export function checkLines(page: ReadPage, say: Say): void {
  const lines = page.shapes.filter((s) => s.tag === 'line' && LINES.has(s.role));
  const flag = page.shapes.filter((s) => ['status', 'date'].includes(s.role) && s.tag === 'rect');
  pairs(page.texts, lines, 1, (t, l) => {
    if (over(t, l, -0.15)) say('line through text', `${l.role} ${t.role} “${t.text}”`);
  });
  pairs(
    page.texts.filter((t) => !['status', 'date'].includes(t.role)),
    flag,
    1,
    (t, f) => {
      if (over(t, f) && !within(t, f)) say('flag over text', t.text);
    },
  );
}

function checkLabels(page: ReadPage, labels: PageText[], marks: PageShape[], promises: PageShape[], say: Say): void {
  const progress = page.shapes.filter((s) => s.role === 'progress');
  const own = new Map<string, Box[]>();
  const deadlines = page.shapes.filter((s) => s.role === 'deadline' && s.ref !== null);
  const stems = page.shapes.filter((s) => ['stem', 'deadline'].includes(s.role) && s.ref !== null);
  for (const m of [...marks, ...promises, ...stems]) {
    const list = own.get(m.ref!);
    if (list) list.push(m);
    else own.set(m.ref!, [m]);
  }
  pairs(labels, [...marks, ...promises, ...progress, ...deadlines], 1, (t, m) => {
    if (!over(t, m, -0.1)) return;
    if (m.ref !== t.ref) say('label over another mark', `“${t.text}” ${m.role} ${m.ref}`);
    else if (m.role === 'progress' || m.role === 'promised' || m.role === 'deadline')
      say('label over its own detail', `“${t.text}” ${m.role}`);
    else if (m.tag === 'rect' && !within(t, m)) say('label across the edge of its bar', t.text);
    else if (m.tag === 'rect')
      for (const fill of t.fills)
        if (contrast(fill, m.fill) < 4.5) say('poor contrast on a bar', `${fill} on ${m.fill} “${t.text}”`);
  });
  pairs(
    labels,
    page.shapes.filter((s) => s.role === 'legend'),
    0,
    (t, m) => {
      if (over(t, m)) say('label over the legend', t.text);
    },
  );
  const byRef = (t: PageText) => own.get(t.ref ?? '') ?? [];
  const twins = new Map<string, number>();
  for (const t of labels) twins.set(t.ref!, (twins.get(t.ref!) ?? 0) + 1);
  pairs(labels, marks, 12, (t, m) => {
    if (m.ref === t.ref || byRef(t).length === 0) return;
    const mine = Math.min(...byRef(t).map((b) => distance(t, b)));
    if (distance(t, m) < mine - 0.35)
      say('label nearer to another', `“${t.text}” ${mine.toFixed(2)} ${distance(t, m).toFixed(2)}`);
  });
}

function checkMarks(page: ReadPage, marks: PageShape[], { brief }: RandomPage, say: Say): void {
  const rule = page.shapes.filter((s) => s.role === 'scale' && s.tag === 'line' && s.right - s.left > 40)[0];
  const bars = marks.filter((m) => m.role === 'bar' && m.tag === 'rect');
  for (const b of bars) if (b.bottom - b.top < 1.5) say('bar too low', `${b.ref} ${b.bottom - b.top}`);
  for (const m of marks) {
    if (rule && (m.left < rule.left - 0.6 || m.right > rule.right + 0.6)) say('mark outside the plot', `${m.ref}`);
    if (rule && m.top < rule.bottom) say('mark above the scale', `${m.ref}`);
  }
  const solid = marks.filter((m) => m.tag !== 'line');
  // Phases begin at the point before them, and bars lie over each other where the brief allows it.
  if (brief.points === 'phases' || (brief.rows === 'packed' && brief.overlaps === 'allowed')) return;
  pairs(solid, solid, 1, (a, b) => {
    if (a.ref! >= b.ref! || !over(a, b, -0.1)) return;
    say('mark over mark', `${a.role} ${a.ref} ${b.role} ${b.ref}`);
  });
}

/** Between two rules across the plot lies one lane: labels and marks stay in it, and so does its title. */
function checkLanes(page: ReadPage, labels: PageText[], marks: PageShape[], say: Say): void {
  const rules = page.shapes.filter((s) => s.role === 'laneRule').sort((a, b) => a.top - b.top);
  const laneOf = (y: number) => rules.filter((r) => r.top < y).length;
  const at = new Map<string, number>();
  for (const m of marks) if (!at.has(m.ref!)) at.set(m.ref!, laneOf((m.top + m.bottom) / 2));
  const refs = new Map<string, number>();
  for (const m of marks) refs.set(m.ref!, (refs.get(m.ref!) ?? 0) + 1);
  for (const t of labels)
    if (t.ref !== null && at.has(t.ref) && laneOf(t.bottom) !== at.get(t.ref) && isSingle(page, t.ref))
      say('label in another lane', t.text);
  for (const t of page.texts) if (t.role === 'lane' && /^.{0,3}…$/.test(t.text)) say('lane title says nothing', t.text);
}

/** A group can stand in several lanes; then its label belongs to one of them. */
const isSingle = (page: ReadPage, ref: string): boolean =>
  page.shapes.filter((s) => s.ref === ref && s.role === 'bar' && s.tag === 'rect').length <= 1;

function checkNames(page: ReadPage, given: RandomPage, labels: PageText[], say: Say): void {
  const keys = page.texts.filter((t) => t.role === 'key');
  const shortened = new Map<string, string>();
  const names = new Map(given.plan.activities.map((a) => [a.ref, a.name || a.ref]));
  for (const t of labels) {
    const cut = t.text.indexOf('…');
    if (cut < 0) continue;
    const text = t.text.slice(0, cut);
    const name = names.get(t.ref ?? '') ?? '';
    if (name.includes('…')) continue;
    if (text.replace(/[\s.,;:·()-]/g, '').length < 4 && given.brief.labels.includes('name'))
      say('name cut below four letters', t.text);
    const before = shortened.get(t.text);
    if (
      before !== undefined &&
      before !== name &&
      given.brief.labels.includes('name') &&
      !given.brief.labels.includes('reference')
    )
      say('shortened names alike', `${t.text}: ${before} / ${name}`);
    shortened.set(t.text, name);
  }
  for (const t of keys) if (t.text.endsWith('…')) say('name cut even in the key', t.text);
  checkDates(page, given, labels, say);
  // Numbers run in the order in which the page is read.
  const numbers = labels.filter((t) => /^\d+$/.test(t.text) && keys.some((k) => k.ref === t.ref));
  const inOrder = [...numbers].sort((a, b) => (Math.abs(a.top - b.top) > 1 ? a.top - b.top : a.left - b.left));
  if (keys.length > 0 && inOrder.length > 1) {
    const rows = new Map<number, number[]>();
    for (const t of numbers) {
      const key = [...rows.keys()].find((y) => Math.abs(y - t.top) <= 1) ?? t.top;
      rows.set(key, [...(rows.get(key) ?? []), Number(t.text)]);
    }
    const sorted = [...rows].sort((a, b) => a[0] - b[0]).map(([, list]) => Math.min(...list));
    if (sorted.some((n, k) => k > 0 && n < sorted[k - 1]!)) say('key out of order', sorted.join(' '));
  }
}

/** A label with a finish alone, that does not stand at the finish of its bar, says "to"; labels without their date are counted. */
function checkDates(page: ReadPage, { brief }: RandomPage, labels: PageText[], say: Say): void {
  if (!brief.labels.includes('finish') || brief.labels.includes('start') || brief.language !== 'en') return;
  const date = /(\bto )?\b\d{1,2} (Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec)( \d\d)?\b/;
  const bars = new Map<string, PageShape[]>();
  for (const s of page.shapes)
    if (s.role === 'bar' && s.tag === 'rect' && s.ref !== null) bars.set(s.ref, [...(bars.get(s.ref) ?? []), s]);
  const dated = new Set<string>();
  for (const t of labels) {
    const found = date.exec(t.text);
    if (!found) continue;
    dated.add(t.ref!);
    const own = bars.get(t.ref!);
    if (own?.length !== 1) continue;
    const atFinish = t.left >= own[0]!.right - 0.5;
    if (!atFinish && found[1] === undefined) say('a finish that reads as a start', t.text);
  }
  if (!brief.labels.includes('name')) return;
  const foot = page.texts
    .filter((t) => t.role === 'source')
    .map((t) => t.text)
    .join(' ');
  const counted = Number(/(\d+) labels? without dates/.exec(foot)?.[1] ?? 0);
  const inKey = new Set(page.texts.filter((t) => t.role === 'key').map((t) => t.ref));
  const summaries = new Set(page.shapes.filter((s) => s.role === 'summary').map((s) => s.ref));
  const without = new Set(labels.map((t) => t.ref!).filter((r) => !dated.has(r) && !inKey.has(r) && !summaries.has(r)));
  if (without.size > counted) say('dates dropped without a count', `${without.size}, said ${counted}`);
}

/** More than a third of the room between the scale and the legend is not left empty below the last row. */
function checkFilled(page: ReadPage, marks: PageShape[], say: Say): void {
  const rows = new Set(marks.filter((m) => m.tag !== 'line').map((m) => Math.round((m.top + m.bottom) / 4)));
  if (rows.size < 6) return;
  const top = Math.max(...page.shapes.filter((s) => s.role === 'scale').map((s) => s.bottom));
  const foot = Math.min(page.height, ...page.texts.filter((t) => t.role === 'source').map((t) => t.top));
  const last = Math.max(
    ...[...page.texts, ...page.shapes].filter((t) => t.role !== 'source').map((t) => (t.bottom < foot ? t.bottom : 0)),
  );
  if (last - top < (foot - top) * 0.64)
    say('a third left empty', `${Math.round((100 * (last - top)) / (foot - top))} %`);
}

function checkPeriods(page: ReadPage, { plan, brief }: RandomPage, say: Say): void {
  if (!brief.periods || plan.periods.length === 0 || brief.language !== 'en') return;
  const shades = page.shapes.filter((s) => s.role === 'period');
  const names = page.texts.filter((t) => t.role === 'period');
  const foot = page.texts
    .filter((t) => t.role === 'source')
    .map((t) => t.text)
    .join(' ');
  if (shades.length > 0 && names.length === 0 && !foot.includes('without name'))
    say('periods without a name', `${shades.length}`);
  const letters = names.every((t) => /^[a-z]{1,2}$/.test(t.text));
  if (letters && names.length > 0) {
    const legend = page.texts.filter((t) => t.role === 'legend').map((t) => t.text);
    for (const t of names) if (!legend.includes(t.text)) say('letter without a meaning', t.text);
  }
}

function checkLegend(page: ReadPage, say: Say): void {
  for (const s of page.shapes)
    if (s.role === 'legend' && s.ref !== null) say('legend sample that passes for a thing of the page', s.ref);
  const used = new Set(page.shapes.filter((s) => s.ref !== null).flatMap((s) => [s.fill, s.stroke]));
  const drawn = page.shapes.filter((s) => s.role === 'legend' && s.tag === 'rect');
  const grey = ['#5B6770'];
  const shades = new Set(page.shapes.filter((s) => ['dayOff', 'elapsed'].includes(s.role)).map((s) => s.fill));
  for (const s of drawn)
    if (!used.has(s.stroke) && !shades.has(s.fill) && s.stroke !== '' && !grey.includes(s.stroke))
      say('legend of what is not there', s.stroke);
  // Empty boxes stand for characters that the fonts lack: names of those can look alike.
  const words = page.texts.filter((t) => t.role === 'legend' && !t.text.includes('□')).map((t) => t.text);
  // Letters stand for periods, whose names may be those of categories.
  const letters = words.findIndex((w) => /^[a-z]{1,2}$/.test(w));
  if (letters >= 0) words.length = letters;
  if (new Set(words).size < words.length) say('legend says it twice', words.join(' | '));
}

/** A summary, where the brief draws those as blocks. */
const isBlock = ({ plan, brief }: RandomPage, ref: string): boolean =>
  brief.summaries === 'blocks' && plan.activities.some((a) => a.ref === ref && a.kind === 'summary');

/** Only in the edition compared with, where the brief asks for what is gone. */
const isGone = ({ plan, brief }: RandomPage, ref: string): boolean =>
  brief.gone && ref.startsWith('GONE') && !plan.activities.some((a) => a.ref === ref);

function checkItems(page: ReadPage, given: RandomPage, pages: ReadPage[], say: Say): void {
  const expected = expectedItems(given);
  const foot = page.texts
    .filter((t) => t.role === 'source')
    .map((t) => t.text)
    .join(' ');
  if (pages.length > 0) {
    const shapes = pages.flatMap((p) => p.shapes);
    const drawn = new Set(
      shapes.filter((s) => s.ref !== null && s.role !== 'key' && s.role !== 'summary').map((s) => s.ref!),
    );
    for (const ref of expected.refs) if (!drawn.has(ref) && !expected.unsure.has(ref)) say('item missing', ref);
    for (const ref of drawn)
      if (!expected.refs.has(ref) && !expected.unsure.has(ref) && !isGone(given, ref) && !isBlock(given, ref))
        say('item unexpected', ref);
  }
  // What is counted is read in English; other languages say the same through the same account.
  if (given.brief.language !== 'en') return;
  const numbers = (words: RegExp) => Number(words.exec(foot)?.[1] ?? 0);
  const undated = numbers(/(\d+) without dates/);
  if (undated !== expected.undated) say('undated not counted', `${undated} of ${expected.undated}: ${foot}`);
  if (expected.of > 0) {
    const shown = numbers(/(\d+) of \d+ activit/);
    const grouped = numbers(/(\d+) (?:more|activit\w+) in \d+ group/);
    const outside = numbers(/(\d+) before or after/);
    const leftOut = numbers(/(\d+) left out/);
    if (shown + grouped + outside + leftOut + undated !== expected.of)
      say(
        'the foot does not add up',
        `${shown}+${grouped}+${outside}+${leftOut}+${undated} of ${expected.of}: ${foot}`,
      );
  }
}
