import { describe, expect, test } from '@jest/globals';
import { createHash } from 'node:crypto';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { leavesOf, type Scene } from '@clembo/scene';
import { compose, fonts, randomPlan } from '../../scene/tests/fixtures';
import { fontFolder, writeHtml } from '../src/index';

const folder = fontFolder(join(dirname(fileURLToPath(import.meta.url)), '../fonts'), fonts);

/** What is to be read on a page. */
const seenOn = (scene: Scene): string =>
  leavesOf(scene.nodes)
    .flatMap((n) => (n.type === 'text' ? [n.runs.map((r) => r.text).join('')] : []))
    .join('\n');

/** A page of HTML without its fonts and without what is drawn. */
const wordsOf = (html: string): string => html.replace(/base64,[\w+/=]+/g, '').replace(/ d="[^"]*"/g, '');

describe('a page that is shared', () => {
  const options = { fonts, embed: folder.embedded() };

  test.each([1, 2, 3, 4, 5, 6])('of random plan %i holds nothing but what is to be seen on it', (seed) => {
    const plan = randomPlan(seed, 120);
    for (const [k, a] of plan.activities.entries()) {
      a.name = `Work number ${k} of ${seed}`;
      a.notes = `Said in private about ${k}`;
    }
    const scene = compose(plan, { lanes: ['lane'], level: 1, labels: ['name'] });
    const seen = seenOn(scene);
    const shared = wordsOf(
      writeHtml([scene], { ...options, names: ['For us only'], shared: { lay: 'pages', live: true } }),
    );
    const hidden = plan.activities.flatMap((a) => [a.name, a.notes]).filter((t) => !seen.includes(t));
    expect(hidden.length).toBeGreaterThan(0);
    // Whole words only: “number 1 of” stands in “number 11 of” as well.
    expect(hidden.filter((t) => new RegExp(`${t}(?!\\d)`).test(shared))).toEqual([]);
    expect(shared).not.toContain('For us only');
    // The same page as a file has what is behind its labels, for those who read it otherwise.
    const file = wordsOf(writeHtml([scene], { ...options, names: ['For us only'] }));
    expect(file).toContain('For us only');
    expect(file.length).toBeGreaterThan(shared.length);
  });

  test('runs only what its policy names, by the hash of what is really there', () => {
    const scene = compose(randomPlan(7, 20), {});
    for (const live of [true, false]) {
      const html = writeHtml([scene], { ...options, present: true, shared: { lay: 'wall', live } });
      const policy = /Content-Security-Policy" content="([^"]+)"/.exec(html)![1]!;
      const scripts = [...html.matchAll(/<script>(.*?)<\/script>/gs)].map((m) => m[1]!);
      expect(scripts).toHaveLength(live ? 2 : 1);
      for (const script of scripts)
        expect(policy).toContain(`'sha256-${createHash('sha256').update(script).digest('base64')}'`);
      expect(policy.includes("connect-src 'self'")).toBe(live);
      expect(policy).not.toContain("script-src 'unsafe");
      expect(html).toContain('<meta name="robots" content="noindex,nofollow">');
      expect(html).toContain('<body class="wall">');
    }
  });

  test('shows what was said about it as text, with a mark at its place; on a wall it does not', () => {
    const scene = compose(randomPlan(3, 20), { language: 'de' });
    const said = [
      [
        {
          number: 4,
          by: 'Ann <i>Oak</i>',
          day: '27. Nov. 26',
          text: '<script>alert(1)</script>',
          at: { x: scene.width / 4, y: scene.height / 2 },
          answers: [{ by: null, day: '28. Nov. 26', text: 'So & so' }],
        },
      ],
    ];
    const html = writeHtml([scene], { ...options, shared: { lay: 'pages', live: false, said } });
    expect(html).toContain('<div class="said"><h2>Kommentare</h2><ol><li id="said-1-4" value="4">');
    expect(html).toContain('<b>Ann &lt;i&gt;Oak&lt;/i&gt;</b> 27. Nov. 26');
    expect(html).toContain('&lt;script&gt;alert(1)&lt;/script&gt;');
    expect(html).toContain('<p class="text">So &amp; so</p>');
    expect(html).toMatch(/<a class="mark" href="#said-1-4"[^>]*style="left:25%;top:50%">4<\/a>/);
    expect(html).not.toContain('<script>');
    const wall = writeHtml([scene], { ...options, shared: { lay: 'wall', live: false, said } });
    expect(wall).not.toContain('Kommentare');
  });
});
