// Makes the fonts that pages are set in, from the woff files of the open-font packages:
// one TTF a face with Latin, Greek and Cyrillic in it and no kerning or ligature tables
// (so that a table of advance widths measures text exactly as every output draws it),
// and that table itself.
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { inflateSync } from 'node:zlib';

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
  return createFont(readFileSync(file), { type: 'woff', inflate, compound2simple: true }).get();
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

async function makeFonts() {
  const { createFont } = await import('fonteditor-core');
  for (const dir of [fontDir, dirname(metricsFile)]) mkdirSync(dir, { recursive: true });
  const metrics = {};
  for (const { face, pkg, weight } of FACES) {
    const [first, ...rest] = SUBSETS.map((s) => readSubset(createFont, pkg, s, weight)).filter(Boolean);
    const have = new Set(first.glyf.flatMap((g) => g.unicode ?? []));
    for (const other of rest) addGlyphs(first, have, other);
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
}

if (process.argv.includes('--force') || ![...made, metricsFile].every((f) => existsSync(f))) await makeFonts();
