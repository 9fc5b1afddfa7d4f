import { fadeStops } from '../fade';
import { escapeXml } from '../xml';
import {
  eachLeaf,
  type Face,
  type FontMetrics,
  type GroupNode,
  type ImageNode,
  type Paint,
  type Scene,
  type SceneNode,
  type TextNode,
} from '@clembo/scene';

export interface SvgOptions {
  fonts: FontMetrics;
  /** Bytes of the font files as base64, by file name, for an SVG that carries its fonts. */
  embed?: Map<string, string>;
  /** Whether nodes carry the reference of what they show, for pages that can be clicked. */
  references?: boolean;
  /** Nothing is written but what is to be seen: no titles and descriptions of what is drawn. */
  bare?: boolean;
  /** Width and height as attributes; without them the picture fills what holds it. */
  sized?: boolean;
}

/** Writes a scene as SVG. Numbers are written as the scene has them: it decides, this only writes. */
export function writeSvg(scene: Scene, options: SvgOptions): string {
  const out: string[] = [];
  const size = options.sized === false ? '' : ` width="${scene.width}pt" height="${scene.height}pt"`;
  out.push(
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${scene.width} ${scene.height}"${size} xml:lang="${scene.language}"${options.bare ? '' : ` role="img" aria-label="${escapeXml(scene.title)}"`}>`,
    options.bare ? '' : `<title>${escapeXml(scene.title)}</title><desc>${escapeXml(scene.description)}</desc>`,
    `<style>${options.embed ? fontFaceRules([scene], options.fonts, options.embed) : ''}text{white-space:pre;text-rendering:geometricPrecision;font-kerning:none;font-variant-ligatures:none;font-feature-settings:"calt" 0,"liga" 0,"kern" 0}${faceRules(scene, options.fonts)}</style>`,
    definitions(scene),
    `<rect width="${scene.width}" height="${scene.height}" fill="${scene.paper}"/>`,
  );
  for (const node of scene.nodes) writeNode(out, node, options);
  out.push('</svg>');
  return out.join('');
}

function usedFaces(scenes: readonly Scene[]): Face[] {
  const faces = new Set<Face>();
  for (const { nodes } of scenes)
    eachLeaf(nodes, (n) => {
      if (n.type === 'text') for (const run of n.runs) faces.add(run.face);
    });
  return [...faces].sort();
}

const faceRules = (scene: Scene, fonts: FontMetrics): string =>
  usedFaces([scene])
    .map((face) => `.${face}{font-family:"${fonts[face].family}",sans-serif;font-weight:${fonts[face].weight}}`)
    .join('');

/** The fonts of pages as rules that carry them. */
export const fontFaceRules = (scenes: readonly Scene[], fonts: FontMetrics, embed: Map<string, string>): string =>
  usedFaces(scenes)
    .map((face) => {
      const { family, weight, file } = fonts[face];
      return `@font-face{font-family:"${family}";font-weight:${weight};src:url(data:font/ttf;base64,${embed.get(file) ?? ''}) format("truetype")}`;
    })
    .join('');

const fadeId = (colour: string, ends: NonNullable<Paint['fade']>): string => `fade${colour.slice(1)}${ends}`;
/** A clip is named after what it is, so that pages beside each other do not take each other's. */
const clipId = ({ x, y, width, height }: NonNullable<GroupNode['clip']>): string =>
  `clip${[x, y, width, height].join('_')}`;

function definitions(scene: Scene): string {
  const list = new Map<string, string>();
  const collect = (nodes: readonly SceneNode[]) => {
    for (const n of nodes) {
      if (n.type === 'group') {
        if (n.clip)
          list.set(
            clipId(n.clip),
            `<clipPath id="${clipId(n.clip)}"><rect x="${n.clip.x}" y="${n.clip.y}" width="${n.clip.width}" height="${n.clip.height}"/></clipPath>`,
          );
        collect(n.children);
      } else if (n.type === 'image') {
        if (n.part || n.turn)
          list.set(
            pictureId(n.data),
            `<image id="${pictureId(n.data)}" width="${PICTURE}" height="${PICTURE}" preserveAspectRatio="none" href="${escapeXml(n.data)}"/>`,
          );
      } else if ('fade' in n && n.fade && n.fill) {
        const { fill } = n;
        const stops = fadeStops(n.fade).map(
          ([at, opacity]) => `<stop offset="${at}" stop-color="${fill}" stop-opacity="${opacity}"/>`,
        );
        const id = fadeId(fill, n.fade);
        list.set(id, `<linearGradient id="${id}">${stops.join('')}</linearGradient>`);
      }
    }
  };
  collect(scene.nodes);
  return list.size === 0 ? '' : `<defs>${[...list.values()].join('')}</defs>`;
}

function writeNode(out: string[], node: SceneNode, options: SvgOptions): void {
  const about =
    (options.references && node.ref !== undefined ? ` data-ref="${escapeXml(node.ref)}"` : '') +
    (options.references && node.between
      ? ` data-from="${escapeXml(node.between[0])}" data-to="${escapeXml(node.between[1])}"`
      : '') +
    (options.references && node.role ? ` data-role="${node.role}"` : '') +
    (options.references && node.type === 'group' && node.note !== undefined
      ? ` data-note="${escapeXml(node.note)}"`
      : '');
  switch (node.type) {
    case 'group': {
      const clip = node.clip ? ` clip-path="url(#${clipId(node.clip)})"` : '';
      const link = options.bare ? undefined : node.link;
      if (link !== undefined) out.push(`<a href="${escapeXml(link)}">`);
      out.push(`<g${clip}${about}>`);
      if (node.name !== undefined && !options.bare)
        out.push(`<title>${escapeXml([node.name, node.alt].filter(Boolean).join(': '))}</title>`);
      for (const child of node.children) writeNode(out, child, options);
      out.push(link === undefined ? '</g>' : '</g></a>');
      return;
    }
    case 'text':
      out.push(textSvg(node, about));
      return;
    case 'rect':
      out.push(
        `<rect x="${node.x}" y="${node.y}" width="${node.width}" height="${node.height}"${node.radius ? ` rx="${node.radius}"` : ''}${paint(node)}${about}/>`,
      );
      return;
    case 'line':
      out.push(
        `<line x1="${node.x1}" y1="${node.y1}" x2="${node.x2}" y2="${node.y2}" stroke="${node.stroke}" stroke-width="${node.strokeWidth}"${about}/>`,
      );
      return;
    case 'path': {
      const d = node.steps.map(([to, ...at]) => to + at.join(' ')).join('');
      out.push(`<path d="${d}"${paint(node)}${about}/>`);
      return;
    }
    case 'circle':
      out.push(`<circle cx="${node.x}" cy="${node.y}" r="${node.radius}"${paint(node)}${about}/>`);
      return;
    case 'image':
      if (node.part || node.turn) {
        out.push(stretchedSvg(node, about));
        return;
      }
      out.push(
        `<image x="${node.x}" y="${node.y}" width="${node.width}" height="${node.height}" href="${escapeXml(node.data)}"${about}><title>${escapeXml(node.alt)}</title></image>`,
      );
      return;
  }
}

/** The id of a picture that is shown in parts, after what it is. */
function pictureId(data: string): string {
  let h = 0x811c9dc5;
  for (let k = 0; k < data.length; k++) h = Math.imul(h ^ data.charCodeAt(k), 0x01000193);
  return `picture${(h >>> 0).toString(36)}${data.length.toString(36)}`;
}

/** A part of a picture, stretched to its box and turned. */
function stretchedSvg(node: ImageNode, about: string): string {
  const { part = WHOLE, turn } = node;
  const side = turn === 90 || turn === 270;
  const [width, height] = side ? [node.height, node.width] : [node.width, node.height];
  const [cx, cy] = [node.x + node.width / 2, node.y + node.height / 2];
  const [x, y] = [cx - width / 2, cy - height / 2];
  const box = [part.x, part.y, part.width, part.height].map((n) => n * PICTURE).join(' ');
  const turned = turn ? ` transform="rotate(${turn} ${cx} ${cy})"` : '';
  return `<g${turned}${about}><title>${escapeXml(node.alt)}</title><svg x="${x}" y="${y}" width="${width}" height="${height}" viewBox="${box}" preserveAspectRatio="none"><use href="#${pictureId(node.data)}"/></svg></g>`;
}

const WHOLE = { x: 0, y: 0, width: 1, height: 1 };
/** Sides of a picture in units of its own. */
const PICTURE = 1000;

function textSvg(node: TextNode, about: string): string {
  const turn = node.turn ? ` transform="rotate(${node.turn} ${node.x} ${node.y})"` : '';
  const place = `x="${node.x}" y="${node.y}" font-size="${node.size}"${turn}`;
  const [first] = node.runs;
  if (node.runs.length === 1 && first)
    return `<text ${place} class="${first.face}" fill="${first.fill}"${about}>${escapeXml(first.text)}</text>`;
  const runs = node.runs.map((r) => `<tspan class="${r.face}" fill="${r.fill}">${escapeXml(r.text)}</tspan>`);
  return `<text ${place}${about}>${runs.join('')}</text>`;
}

const paint = (p: Paint): string => {
  const fill = p.fade && p.fill ? `url(#${fadeId(p.fill, p.fade)})` : (p.fill ?? 'none');
  const opacity = p.opacity === undefined ? '' : ` fill-opacity="${p.opacity}"`;
  const stroke = p.stroke ? ` stroke="${p.stroke}" stroke-width="${p.strokeWidth ?? 1}"` : '';
  return ` fill="${fill}"${opacity}${stroke}`;
};
