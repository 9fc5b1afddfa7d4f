import { describe, expect, test } from '@jest/globals';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { leavesOf, type Scene } from '@clembo/scene';
import { compose, fonts, randomPlan } from '../../scene/tests/fixtures';
import { fontFolder, writePdf, writePng, writeSvg } from '../src/index';

const folder = fontFolder(join(dirname(fileURLToPath(import.meta.url)), '../fonts'), fonts);
const plan = randomPlan(3, 40);
plan.activities[0]!.name = 'Rails & <posts> "north"\u0001';
const scene = compose(plan, { lanes: ['lane'], colour: 'trade' });

const facesIn = (s: Scene) =>
  new Set(leavesOf(s.nodes).flatMap((n) => (n.type === 'text' ? n.runs.map((r) => r.face) : []))).size;

describe('SVG', () => {
  const svg = writeSvg(scene, { fonts, references: true });

  test('escapes what XML gives a meaning and drops what it forbids', () => {
    expect(svg).toContain('>Rails &amp; &lt;posts&gt; &quot;north&quot;');
    // biome-ignore lint: a control character is what is looked for
    expect(svg).not.toMatch(/\u0001/);
  });

  test('says its title and size, and carries references only where they are asked for', () => {
    expect(svg).toContain(`viewBox="0 0 ${scene.width} ${scene.height}" width="${scene.width}pt"`);
    expect(svg).toContain(`<title>${scene.title}</title>`);
    expect(svg).toContain('data-ref="A1"');
    expect(writeSvg(scene, { fonts })).not.toContain('data-ref');
  });

  test('carries its fonts when asked', () => {
    const whole = writeSvg(scene, { fonts, embed: folder.embedded() });
    expect(whole.match(/@font-face/g)!.length).toBe(facesIn(scene));
  });
});

test('PDF: the same page and date give the same bytes; every face is embedded once', async () => {
  const options = { fonts, fontPath: folder.path, date: new Date('2026-09-14T00:00:00Z') };
  const [a, b] = [Buffer.from(await writePdf([scene], options)), Buffer.from(await writePdf([scene], options))];
  expect(a.equals(b)).toBe(true);
  const text = a.toString('latin1');
  expect(text.startsWith('%PDF-1.7')).toBe(true);
  expect(text).toContain('/Lang (en)');
  expect(text.match(/\/FontFile2/g)!.length).toBe(facesIn(scene));
  await expect(writePdf([], options)).rejects.toThrow('at least one page');
});

test('PNG: twice the size of the page, by its own header', () => {
  const png = Buffer.from(writePng(scene, { fonts, fontPath: folder.path }));
  expect(png.subarray(1, 4).toString()).toBe('PNG');
  expect([png.readUInt32BE(16), png.readUInt32BE(20)]).toEqual([
    Math.round(scene.width * 2),
    Math.round(scene.height * 2),
  ]);
});
