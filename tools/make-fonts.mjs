// Makes the fonts that pages are set in, from the woff files of the open-font packages:
// one TTF a face with Latin, Greek and Cyrillic in it and no kerning or ligature tables
// (so that a table of advance widths measures text exactly as every output draws it),
// and that table itself.
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { inflateSync } from 'node:zlib';
import { create as createShaper } from 'fontkit';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const require = createRequire(import.meta.url);
const FACES = [
  { face: 'label', pkg: 'sofia-sans-condensed', weight: 400 },
  { face: 'labelStrong', pkg: 'sofia-sans-condensed', weight: 600 },
  { face: 'text', pkg: 'sofia-sans', weight: 400 },
  { face: 'textStrong', pkg: 'sofia-sans', weight: 600 },
  { face: 'title', pkg: 'literata', weight: 600 },
];
const FAMILIES = { 'sofia-sans-condensed': 'Sofia Sans Condensed', 'sofia-sans': 'Sofia Sans', literata: 'Literata' };
const SUBSETS = ['latin', 'latin-ext', 'greek', 'greek-ext', 'cyrillic', 'cyrillic-ext', 'vietnamese'];

const fontDir = join(root, 'packages/render/fonts');
const metricsFile = join(root, 'packages/scene/fonts/metrics.json');
/** What the fonts were made by: a change to this script makes them anew. */
const stampFile = join(fontDir, 'made-by.txt');
const stamp = createHash('sha256')
  .update(readFileSync(fileURLToPath(import.meta.url)))
  .digest('hex');
const made = FACES.map(({ pkg, weight }) => join(fontDir, `${pkg}-${weight}.ttf`));

/** Reads one subset of a face, or null where the package has none. */
function readSubset(createFont, pkg, subset, weight) {
  const file = join(
    dirname(require.resolve(`@fontsource/${pkg}/package.json`)),
    'files',
    `${pkg}-${subset}-${weight}-normal.woff`,
  );
  if (!existsSync(file)) return null;
  const inflate = (data) => Array.from(inflateSync(Uint8Array.from(data)));
  const bytes = readFileSync(file);
  const font = createFont(bytes, { type: 'woff', inflate, compound2simple: true }).get();
  if (subset.startsWith('cyrillic')) takeCommonForms(font, createShaper(bytes));
  return font;
}

/**
 * Some faces draw Cyrillic letters in their Bulgarian forms and keep the common ones for Russian text. Names on a page
 * carry no language: they take the forms that Russian, Ukrainian and most others share.
 */
function takeCommonForms(font, shaper) {
  for (const glyph of [...font.glyf]) {
    for (const unicode of glyph.unicode ?? []) {
      const [formed] = shaper.layout(String.fromCodePoint(unicode), undefined, 'cyrl', 'RUS ').glyphs;
      const common = font.glyf[formed.id];
      if (!common || common === glyph || formed.id === 0) continue;
      const { contours, advanceWidth, leftSideBearing, xMin, xMax, yMin, yMax } = common;
      Object.assign(glyph, { contours, advanceWidth, leftSideBearing, xMin, xMax, yMin, yMax });
    }
  }
}

/** Adds to a font the glyphs of another for the characters that it lacks. */
function addGlyphs(base, have, other) {
  for (const glyph of other.glyf) {
    const unicode = (glyph.unicode ?? []).filter((c) => !have.has(c));
    if (unicode.length === 0) continue;
    for (const c of unicode) have.add(c);
    base.glyf.push({ ...glyph, unicode });
  }
}

/** An empty box, for characters that no subset has: pages say so the same way in every output. */
function addMissingBox(font) {
  const high = font['OS/2'].sCapHeight || 680;
  const box = (left, bottom, right, top, clockwise) => {
    const corners = [
      [left, bottom],
      [left, top],
      [right, top],
      [right, bottom],
    ].map(([x, y]) => ({ x, y, onCurve: true }));
    return clockwise ? corners : corners.reverse();
  };
  font.glyf.push({
    name: 'missing',
    unicode: [0x25a1],
    advanceWidth: 560,
    leftSideBearing: 60,
    xMin: 60,
    yMin: 0,
    xMax: 500,
    yMax: high,
    contours: [box(60, 0, 500, high, true), box(115, 55, 445, high - 55, false)],
  });
}

async function makeFonts() {
  const { createFont } = await import('fonteditor-core');
  for (const dir of [fontDir, dirname(metricsFile)]) mkdirSync(dir, { recursive: true });
  const metrics = {};
  for (const { face, pkg, weight } of FACES) {
    const [first, ...rest] = SUBSETS.map((s) => readSubset(createFont, pkg, s, weight)).filter(Boolean);
    const have = new Set(first.glyf.flatMap((g) => g.unicode ?? []));
    for (const other of rest) addGlyphs(first, have, other);
    if (!have.has(0x25a1)) addMissingBox(first);
    first.name.fontFamily = FAMILIES[pkg];
    first.name.fontSubFamily = weight === 400 ? 'Regular' : 'SemiBold';
    for (const key of ['preferredFamily', 'preferredSubFamily']) delete first.name[key];
    const font = createFont();
    font.set(first);
    const bytes = Buffer.from(font.write({ type: 'ttf' }));
    writeFileSync(join(fontDir, `${pkg}-${weight}.ttf`), bytes);
    const widths = {};
    for (const g of first.glyf) for (const c of g.unicode ?? []) widths[c] = g.advanceWidth;
    metrics[face] = {
      family: FAMILIES[pkg],
      file: `${pkg}-${weight}.ttf`,
      weight,
      unitsPerEm: first.head.unitsPerEm,
      ascent: first.hhea.ascent,
      descent: first.hhea.descent,
      xHeight: first['OS/2'].sxHeight || 480,
      capHeight: first['OS/2'].sCapHeight || 680,
      widths,
    };
  }
  writeFileSync(metricsFile, JSON.stringify(metrics));
  writeFileSync(stampFile, stamp);
}

const isMade =
  [...made, metricsFile, stampFile].every((f) => existsSync(f)) && readFileSync(stampFile, 'utf8') === stamp;
if (!isMade) await makeFonts();
