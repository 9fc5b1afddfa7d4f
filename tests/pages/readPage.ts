import type { Page } from 'puppeteer-core';
import type { FontMetrics } from '../../packages/scene/src/index';

/** A box on the page, in points. */
export interface Box {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** A text of the written page, as the browser draws it. */
export interface PageText extends Box {
  text: string;
  role: string;
  ref: string | null;
  size: number;
  fills: string[];
}

/** A shape of the written page. */
export interface PageShape extends Box {
  tag: string;
  role: string;
  ref: string | null;
  fill: string;
  stroke: string;
}

/** What stands on a written page, read from its SVG by a browser. */
export interface ReadPage {
  width: number;
  height: number;
  texts: PageText[];
  shapes: PageShape[];
}

/** Opens an empty document that has the fonts of pages. */
export async function openReader(page: Page, fonts: FontMetrics, embedded: Map<string, string>): Promise<void> {
  const faces = Object.values(fonts).map(
    (f) =>
      `@font-face{font-family:"${f.family}";font-weight:${f.weight};src:url(data:font/ttf;base64,${embedded.get(f.file)}) format("truetype")}`,
  );
  await page.setContent(`<style>${faces.join('')}body{margin:0}</style><div id="page"></div>`);
  // Development loaders name functions by a helper that the page does not have.
  await page.evaluate('globalThis.__name = (f) => f');
  await page.evaluate(async () => {
    await Promise.all([...document.fonts].map((f) => f.load()));
  });
}

/** Reads a written page. The height of a text is that of its ascenders and descenders, its width what the browser says. */
export async function readPage(page: Page, svg: string): Promise<ReadPage> {
  return page.evaluate((source: string): ReadPage => {
    const host = document.getElementById('page')!;
    host.innerHTML = source;
    const root = host.querySelector('svg')!;
    root.setAttribute('width', `${root.viewBox.baseVal.width}`);
    root.setAttribute('height', `${root.viewBox.baseVal.height}`);
    const about = (node: Element) => ({
      role: node.getAttribute('data-role') ?? '',
      ref: node.getAttribute('data-ref'),
    });
    const texts: PageText[] = [];
    for (const node of root.querySelectorAll('text')) {
      const [x, y, size] = ['x', 'y', 'font-size'].map((a) => Number(node.getAttribute(a)));
      const runs = node.querySelectorAll('tspan');
      const turned = /rotate\(-90/.test(node.getAttribute('transform') ?? '');
      const length = node.getComputedTextLength();
      texts.push({
        ...about(node),
        text: node.textContent ?? '',
        size: size!,
        left: turned ? x! - size! * 0.74 : x!,
        right: turned ? x! + size! * 0.22 : x! + length,
        top: turned ? y! - length : y! - size! * 0.74,
        bottom: turned ? y! : y! + size! * 0.22,
        fills: (runs.length > 0 ? [...runs] : [node]).map((r) => r.getAttribute('fill') ?? ''),
      });
    }
    const shapes: PageShape[] = [];
    for (const node of root.querySelectorAll('rect,line,path,circle,image')) {
      if (node.closest('defs') || node.getAttribute('data-role') === null) continue;
      const b = (node as SVGGraphicsElement).getBBox();
      shapes.push({
        ...about(node),
        tag: node.tagName,
        left: b.x,
        top: b.y,
        right: b.x + b.width,
        bottom: b.y + b.height,
        fill: node.getAttribute('fill') ?? '',
        stroke: node.getAttribute('stroke') ?? '',
      });
    }
    return { width: root.viewBox.baseVal.width, height: root.viewBox.baseVal.height, texts, shapes };
  }, svg);
}
