import type { FontMetrics, Scene, SceneNode } from '@clembo/scene';

export interface SvgOptions {
  fonts: FontMetrics;
  /** Bytes of the font files as base64, by file name, for an SVG that carries its fonts. */
  embed?: Map<string, string>;
  /** Whether nodes carry the reference of what they show, for pages that can be clicked. */
  references?: boolean;
  /** Width and height as attributes; without them the picture fills what holds it. */
  sized?: boolean;
}

/** Writes a scene as SVG. Numbers are written as the scene has them: it decides, this only writes. */
export function writeSvg(scene: Scene, options: SvgOptions): string {
  const out: string[] = [];
  const size = options.sized === false ? '' : ` width="${scene.width}pt" height="${scene.height}pt"`;
  out.push(
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${scene.width} ${scene.height}"${size} xml:lang="${scene.language}" role="img" aria-label="${escape(scene.title)}">`,
    `<title>${escape(scene.title)}</title><desc>${escape(scene.description)}</desc>`,
    `<style>${fontFaces(scene, options)}text{white-space:pre;text-rendering:geometricPrecision;font-kerning:none;font-variant-ligatures:none;font-feature-settings:"calt" 0,"liga" 0,"kern" 0}${faceRules(scene, options.fonts)}</style>`,
    fadeDefinitions(scene),
    `<rect width="${scene.width}" height="${scene.height}" fill="${scene.paper}"/>`,
  );
  for (const node of scene.nodes) out.push(nodeSvg(node, options));
  out.push('</svg>');
  return out.join('');
}

const usedFaces = (scene: Scene) =>
  [...new Set(scene.nodes.flatMap((n) => (n.type === 'text' ? [n.face] : [])))].sort();

const faceRules = (scene: Scene, fonts: FontMetrics): string =>
  usedFaces(scene)
    .map((face) => `.${face}{font-family:"${fonts[face].family}",sans-serif;font-weight:${fonts[face].weight}}`)
    .join('');

function fontFaces(scene: Scene, { fonts, embed }: SvgOptions): string {
  if (!embed) return '';
  return usedFaces(scene)
    .map((face) => {
      const { family, weight, file } = fonts[face];
      return `@font-face{font-family:"${family}";font-weight:${weight};src:url(data:font/ttf;base64,${embed.get(file) ?? ''}) format("truetype")}`;
    })
    .join('');
}

const FADE = [
  [0, 0],
  [0.18, 1],
  [0.82, 1],
  [1, 0],
] as const;

const fadeId = (colour: string): string => `fade${colour.slice(1)}`;

function fadeDefinitions(scene: Scene): string {
  const colours = [...new Set(scene.nodes.flatMap((n) => (n.type === 'rect' && n.fade && n.fill ? [n.fill] : [])))];
  if (colours.length === 0) return '';
  const gradient = (c: string) =>
    `<linearGradient id="${fadeId(c)}">${FADE.map(([at, opacity]) => `<stop offset="${at}" stop-color="${c}" stop-opacity="${opacity}"/>`).join('')}</linearGradient>`;
  return `<defs>${colours.map(gradient).join('')}</defs>`;
}

function nodeSvg(node: SceneNode, options: SvgOptions): string {
  const about =
    (options.references && node.ref !== undefined ? ` data-ref="${escape(node.ref)}"` : '') +
    (options.references && node.role ? ` data-role="${node.role}"` : '');
  switch (node.type) {
    case 'text':
      return `<text x="${node.x}" y="${node.y}" class="${node.face}" font-size="${node.size}" fill="${node.fill}"${about}>${escape(node.text)}</text>`;
    case 'rect': {
      const fill = node.fade && node.fill ? `url(#${fadeId(node.fill)})` : (node.fill ?? 'none');
      return `<rect x="${node.x}" y="${node.y}" width="${node.width}" height="${node.height}"${node.radius ? ` rx="${node.radius}"` : ''} fill="${fill}"${node.opacity !== undefined ? ` fill-opacity="${node.opacity}"` : ''}${stroke(node)}${about}/>`;
    }
    case 'line':
      return `<line x1="${node.x1}" y1="${node.y1}" x2="${node.x2}" y2="${node.y2}"${stroke(node)}${about}/>`;
    case 'polygon':
      return `<path d="M${node.points.map((p) => p.join(' ')).join('L')}Z" fill="${node.fill ?? 'none'}"${stroke(node)}${about}/>`;
    case 'circle':
      return `<circle cx="${node.x}" cy="${node.y}" r="${node.radius}" fill="${node.fill ?? 'none'}"${stroke(node)}${about}/>`;
  }
}

const stroke = (n: { stroke?: string; strokeWidth?: number }): string =>
  n.stroke ? ` stroke="${n.stroke}" stroke-width="${n.strokeWidth ?? 1}"` : '';

const ESCAPES: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' };

/** Escapes what XML gives a meaning, and drops characters that it does not allow at all. */
const escape = (text: string): string =>
  // biome-ignore lint: control characters are what is looked for
  text.replace(/[&<>"']/g, (c) => ESCAPES[c]!).replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '');
