import { expect, test } from '@jest/globals';
import { strFromU8, unzipSync } from 'fflate';
import { SaxesParser } from 'saxes';
import { leavesOf, textOf } from '@clembo/scene';
import { compose, fonts, randomPlan } from '../../scene/tests/fixtures';
import { writePptx } from '../src/index';

const date = new Date('2026-09-14T00:00:00Z');
const plan = randomPlan(3, 40);
plan.activities[0]!.name = 'Rails & <posts> "north"\u0001';
const PIXEL =
  'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==';
const logo = { name: 'logo.png', data: PIXEL, width: 10, height: 10 };
const scene = compose(plan, { lanes: ['lane'], colour: 'trade', laneTitles: 'turned', print: 'grey', logo });

interface Read {
  names: string[];
  alts: string[];
  texts: { text: string; x: number; baseline: number; turned: boolean }[];
}

/** Reads a slide as another program would: names, alternative texts, and texts with their places in points. */
function readSlide(xml: string): Read {
  const read: Read = { names: [], alts: [], texts: [] };
  let [x, y, size, text, turned] = [0, 0, 0, '', false];
  const parser = new SaxesParser();
  parser.on('opentag', ({ name, attributes: a }) => {
    if (name === 'p:cNvPr') {
      read.names.push(a.name!);
      if (a.descr) read.alts.push(a.descr);
    }
    if (name === 'a:xfrm') turned = a.rot !== undefined;
    if (name === 'a:off') [x, y] = [Number(a.x) / 12_700, Number(a.y) / 12_700];
    if (name === 'a:rPr') size = Number(a.sz) / 100;
    if (name === 'a:t') text += '\u0000';
    if (name === 'a:br') text += ' ';
  });
  parser.on('text', (t) => {
    if (text.endsWith('\u0000')) text = text.slice(0, -1) + t;
  });
  parser.on('closetag', ({ name }) => {
    if (name !== 'p:txBody') return;
    read.texts.push({ text, x, baseline: y + size, turned });
    text = '';
  });
  parser.write(xml).close();
  return read;
}

const partsOf = (bytes: Uint8Array) => {
  const files = unzipSync(bytes);
  return { names: Object.keys(files), text: (name: string) => strFromU8(files[name]!) };
};

test('every text of the page is a text of the slide, on its baseline', async () => {
  const { text } = partsOf(await writePptx([scene], { fonts, date }));
  const slide = readSlide(text('ppt/slides/slide1.xml'));
  const expected = leavesOf(scene.nodes).flatMap((n) => (n.type === 'text' && n.role !== 'title' ? [n] : []));
  const level = slide.texts.filter((t) => !t.turned);
  for (const node of expected) {
    const own = textOf(node).trim();
    if (own === '') continue;
    if (node.turn) {
      expect(slide.texts.some((t) => t.turned && t.text.trim() === own)).toBe(true);
      continue;
    }
    const near = level.some(
      (t) => t.text.trim() === own && Math.abs(t.x - node.x) < 0.1 && Math.abs(t.baseline - node.y) < 0.1,
    );
    expect([own, near]).toEqual([own, true]);
  }
  expect(slide.texts.some((t) => t.text === scene.title)).toBe(true);
});

test('things are groups with their name and an alternative text; the picture is the only picture', async () => {
  const { text, names } = partsOf(await writePptx([scene], { fonts, date }));
  const xml = text('ppt/slides/slide1.xml');
  const slide = readSlide(xml);
  for (const node of scene.nodes) {
    if (node.type !== 'group' || node.role !== 'item') continue;
    // What XML cannot carry is not in the name either.
    // biome-ignore lint: a control character is what is looked for
    expect(slide.names).toContain(node.name!.replace(/\u0001/g, ''));
    expect(slide.alts.some((a) => a.includes(node.alt!))).toBe(true);
  }
  for (const name of ['Title', 'Time scale', 'Grid', 'Legend', 'Bar', 'Label']) expect(slide.names).toContain(name);
  expect(xml.match(/<p:pic>/g)).toHaveLength(1);
  const relations = text('ppt/slides/_rels/slide1.xml.rels');
  const [, id] = /r:embed="([^"]+)"/.exec(xml)!;
  const [, media] = new RegExp(`Id="${id}"[^>]*Target="\\.\\./([^"]+)"`).exec(relations)!;
  expect(names).toContain(`ppt/${media}`);
  const ids = [...xml.matchAll(/<p:cNvPr id="(\d+)"/g)].map((m) => m[1]);
  expect(new Set(ids).size).toBe(ids.length);
});

test('colours and fonts are those of a theme that can be changed', async () => {
  const { text } = partsOf(await writePptx([scene], { fonts, date }));
  const theme = text('ppt/theme/theme1.xml');
  expect(theme).toContain('<a:lt1><a:srgbClr val="FBFAF6"/></a:lt1>');
  expect(theme).toMatch(/<a:minorFont><a:latin typeface="Sofia Sans Condensed"/);
  const xml = text('ppt/slides/slide1.xml');
  expect(xml).toContain('<a:schemeClr val="tx1">');
  expect(xml).toContain('<a:latin typeface="+mj-lt"/>');
  expect(xml).not.toContain('1E2A32');
});

test('the same pages and date give the same bytes; each page is a slide with its notes', async () => {
  const pages = [scene, compose(plan, { page: 'A3 portrait' })];
  const [a, b] = [await writePptx(pages, { fonts, date }), await writePptx(pages, { fonts, date })];
  expect(Buffer.from(a).equals(Buffer.from(b))).toBe(true);
  const { names, text } = partsOf(a);
  expect(names.filter((n) => /^ppt\/slides\/slide\d+\.xml$/.test(n))).toHaveLength(2);
  expect(readSlide(text('ppt/notesSlides/notesSlide1.xml')).texts.some((t) => t.text.includes(scene.title))).toBe(true);
  const core = text('docProps/core.xml');
  expect(core).toContain('2026-09-14T00:00:00Z</dcterms:created>');
  // A page of another size is fitted in: it stands within the slide.
  const right = Math.max(...readSlide(text('ppt/slides/slide2.xml')).texts.map((t) => t.x));
  expect(right).toBeLessThan(scene.width);
  await expect(writePptx([], { fonts, date })).rejects.toThrow('at least one page');
});
