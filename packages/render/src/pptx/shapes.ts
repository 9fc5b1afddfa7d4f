import {
  type CircleNode,
  type GroupNode,
  type ImageNode,
  type LineNode,
  type Measure,
  type Paint,
  type PathNode,
  type RectNode,
  type Role,
  type SceneNode,
  type TextNode,
  type TextRun,
  textOf,
} from '@clembo/scene';
import { fadeStops } from '../fade';
import { escapeXml } from '../xml';
import { clipped } from './clip';
import { colourXml, TYPEFACES } from './theme';

/** English Metric Units in a point. */
const EMU = 12_700;
/** Slides set lines alike in all fonts: so high, with the baseline so far down, in sizes of type (measured in LibreOffice). */
const LINE = 1.2;
const UP = 1;
const emu = (points: number): number => Math.round(points * EMU);

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** A shape with the box that it takes. */
interface Shape {
  xml: string;
  box: Box;
}

/** What the parts of a page are called where a person picks them from a list. */
const NAMES: Partial<Record<Role, string>> = {
  title: 'Title',
  subtitle: 'Subtitle',
  logo: 'Logo',
  source: 'Source',
  legend: 'Legend',
  scale: 'Time scale',
  grid: 'Grid',
  status: 'Status date',
  lane: 'Lane titles',
  laneRule: 'Lane rules',
  laneEdge: 'Lane edges',
  period: 'Periods',
  bar: 'Bar',
  progress: 'Progress',
  critical: 'Critical',
  promised: 'Promised',
  pattern: 'Pattern',
  summary: 'Summary',
  milestone: 'Milestone',
  label: 'Label',
  stem: 'Stem',
  strand: 'Strand',
  link: 'Links',
  date: 'Dates',
  deadline: 'Deadline',
  dayOff: 'Days off',
  elapsed: 'Time gone by',
  key: 'Key',
  notice: 'Notice',
  mark: 'Mark',
  band: 'Bands',
  curve: 'Curve',
  cell: 'Cells',
  head: 'Headings',
  note: 'Note',
};
const nameOf = (node: SceneNode): string => (node.role && NAMES[node.role]) ?? 'Shape';

export interface ShapeOptions {
  measure: Measure;
  language: string;
  /** Of the slide, in points. */
  width: number;
  /** The relation by which a picture is kept. */
  pictureOf: (node: ImageNode) => string;
}

/** The tree of shapes of a slide: native shapes, named after what they are, the parts of one thing in a group. */
export function shapeTree(nodes: readonly SceneNode[], options: ShapeOptions): string {
  const writer = new ShapeWriter(options);
  const shapes = titled(nodes).flatMap((part) => ('title' in part ? [writer.title(part.title)] : writer.part(part)));
  return shapes.map((s) => s.xml).join('');
}

/** The lines of the title as one, and what stands beside each other in one role as a bundle. */
function titled(nodes: readonly SceneNode[]): ({ title: TextNode[] } | { name: string; nodes: SceneNode[] })[] {
  const title = nodes.filter((n): n is TextNode => n.type === 'text' && n.role === 'title');
  const bundles: { name: string; nodes: SceneNode[]; role: Role | undefined }[] = [];
  for (const node of nodes) {
    if (node.type === 'text' && node.role === 'title') continue;
    const last = bundles.at(-1);
    const alone = node.type === 'group' && node.name !== undefined;
    if (last && last.role !== undefined && last.role === node.role && !alone) last.nodes.push(node);
    else bundles.push({ name: nameOf(node), nodes: [node], role: alone ? undefined : node.role });
  }
  return [...(title.length > 0 ? [{ title }] : []), ...bundles];
}

class ShapeWriter {
  #id = 1;
  constructor(private readonly o: ShapeOptions) {}

  /** A bundle of nodes: one shape, or a group of them. */
  part({ name, nodes }: { name: string; nodes: SceneNode[] }): Shape[] {
    const shapes = nodes.flatMap((n) => this.node(n));
    return shapes.length < 2 ? shapes : [this.group(shapes, name, '', true)];
  }

  /** The title in one box, its lines under each other, so that it can be written anew. */
  title(lines: TextNode[]): Shape {
    const [first] = lines as [TextNode];
    const box = {
      x: first.x,
      y: first.y - first.size * UP,
      // A longer title has room to the edge; some programs break the lines of a title that just fits its box.
      width: Math.max(this.o.width - first.x, ...lines.map((l) => this.width(l))),
      height: first.size * LINE * lines.length,
    };
    const runs = lines.map((l) => this.runs(l)).join('<a:br/>');
    return this.text(box, 'Title', `<a:p><a:pPr algn="l"/>${runs}</a:p>`, { title: true });
  }

  private node(node: SceneNode): Shape[] {
    switch (node.type) {
      case 'group': {
        const children = node.clip ? node.children.flatMap((n) => clipped(n, node.clip!)) : node.children;
        const shapes = children.flatMap((n) => this.node(n));
        if (shapes.length === 0) return [];
        const name = node.name ?? nameOf(node);
        return [this.group(shapes, name, altOf(node), node.name === undefined)];
      }
      case 'text':
        return textOf(node).trim() === '' ? [] : [this.line(node)];
      case 'rect':
        return node.width <= 0 || node.height <= 0 ? [] : [this.rect(node)];
      case 'line':
        return [this.connector(node)];
      case 'path':
        return [this.path(node)];
      case 'circle':
        return [this.circle(node)];
      case 'image':
        return [this.picture(node)];
    }
  }

  private about(name: string, alt: string, decoration: boolean): string {
    const quiet = decoration
      ? '<a:extLst><a:ext uri="{C183D7F6-B498-43B3-948B-1728B52AA6E4}"><adec:decorative xmlns:adec="http://schemas.microsoft.com/office/drawing/2017/decorative" val="1"/></a:ext></a:extLst>'
      : '';
    const said = alt === '' ? '' : ` descr="${escapeXml(alt)}"`;
    return `<p:cNvPr id="${++this.#id}" name="${escapeXml(name)}"${said}>${quiet}</p:cNvPr>`;
  }

  private group(shapes: Shape[], name: string, alt: string, decoration: boolean): Shape {
    const box = around(shapes.map((s) => s.box));
    const [at, size] = placeXml(box);
    const child = `${at.replace('a:off', 'a:chOff')}${size.replace('a:ext', 'a:chExt')}`;
    return {
      box,
      xml: `<p:grpSp><p:nvGrpSpPr>${this.about(name, alt, decoration)}<p:cNvGrpSpPr/><p:nvPr/></p:nvGrpSpPr><p:grpSpPr><a:xfrm>${at}${size}${child}</a:xfrm></p:grpSpPr>${shapes.map((s) => s.xml).join('')}</p:grpSp>`,
    };
  }

  private shape(node: SceneNode, box: Box, geometry: string, paint: string): Shape {
    return {
      box,
      xml: `<p:sp><p:nvSpPr>${this.about(nameOf(node), '', node.type !== 'text')}<p:cNvSpPr/><p:nvPr/></p:nvSpPr><p:spPr><a:xfrm>${placeXml(box).join('')}</a:xfrm>${geometry}${paint}</p:spPr></p:sp>`,
    };
  }

  private rect(node: RectNode): Shape {
    const { x, y, width, height } = node;
    const round = Math.min(0.5, (node.radius ?? 0) / Math.min(width, height));
    const geometry =
      round > 0
        ? `<a:prstGeom prst="roundRect"><a:avLst><a:gd name="adj" fmla="val ${Math.round(round * 100_000)}"/></a:avLst></a:prstGeom>`
        : '<a:prstGeom prst="rect"><a:avLst/></a:prstGeom>';
    return this.shape(node, { x, y, width, height }, geometry, paintXml(node));
  }

  private circle(node: CircleNode): Shape {
    const { x, y, radius: r } = node;
    const box = { x: x - r, y: y - r, width: 2 * r, height: 2 * r };
    return this.shape(node, box, '<a:prstGeom prst="ellipse"><a:avLst/></a:prstGeom>', paintXml(node));
  }

  private connector(node: LineNode): Shape {
    const box = {
      x: Math.min(node.x1, node.x2),
      y: Math.min(node.y1, node.y2),
      width: Math.abs(node.x2 - node.x1),
      height: Math.abs(node.y2 - node.y1),
    };
    const rising = (node.x2 - node.x1) * (node.y2 - node.y1) < 0 ? ' flipV="1"' : '';
    return {
      box,
      xml: `<p:cxnSp><p:nvCxnSpPr>${this.about(nameOf(node), '', true)}<p:cNvCxnSpPr/><p:nvPr/></p:nvCxnSpPr><p:spPr><a:xfrm${rising}>${placeXml(box).join('')}</a:xfrm><a:prstGeom prst="line"><a:avLst/></a:prstGeom>${strokeXml(node)}</p:spPr></p:cxnSp>`,
    };
  }

  private path(node: PathNode): Shape {
    const at = node.steps.flatMap((s) => pairs(s.slice(1) as number[]));
    const box = around(at.map(([x, y]) => ({ x, y, width: 0, height: 0 })));
    const point = ([x, y]: [number, number]) => `<a:pt x="${emu(x - box.x)}" y="${emu(y - box.y)}"/>`;
    const steps = node.steps.map((step) => {
      const points = pairs(step.slice(1) as number[])
        .map(point)
        .join('');
      switch (step[0]) {
        case 'M':
          return `<a:moveTo>${points}</a:moveTo>`;
        case 'L':
          return `<a:lnTo>${points}</a:lnTo>`;
        case 'C':
          return `<a:cubicBezTo>${points}</a:cubicBezTo>`;
        case 'Z':
          return '<a:close/>';
      }
    });
    const filled = node.fill === undefined ? ' fill="none"' : '';
    const geometry = `<a:custGeom><a:avLst/><a:gdLst/><a:ahLst/><a:cxnLst/><a:rect l="0" t="0" r="r" b="b"/><a:pathLst><a:path w="${emu(box.width)}" h="${emu(box.height)}"${filled}>${steps.join('')}</a:path></a:pathLst></a:custGeom>`;
    return this.shape(node, box, geometry, paintXml(node));
  }

  private picture(node: ImageNode): Shape {
    const box = { x: node.x, y: node.y, width: node.width, height: node.height };
    const { part, turn } = node;
    const share = (n: number) => Math.round(n * 100_000);
    const shown = part
      ? `<a:srcRect l="${share(part.x)}" t="${share(part.y)}" r="${share(1 - part.x - part.width)}" b="${share(1 - part.y - part.height)}"/>`
      : '';
    // A slide says the box of a picture before it is turned.
    const [cx, cy] = [node.x + node.width / 2, node.y + node.height / 2];
    const upright =
      turn === 90 || turn === 270
        ? { x: cx - node.height / 2, y: cy - node.width / 2, width: node.height, height: node.width }
        : box;
    const rot = turn ? ` rot="${turn * 60_000}"` : '';
    return {
      box,
      xml: `<p:pic><p:nvPicPr>${this.about(nameOf(node), node.alt, node.alt === '')}<p:cNvPicPr><a:picLocks noChangeAspect="1"/></p:cNvPicPr><p:nvPr/></p:nvPicPr><p:blipFill><a:blip r:embed="${this.o.pictureOf(node)}"/>${shown}<a:stretch><a:fillRect/></a:stretch></p:blipFill><p:spPr><a:xfrm${rot}>${placeXml(upright).join('')}</a:xfrm><a:prstGeom prst="rect"><a:avLst/></a:prstGeom></p:spPr></p:pic>`,
    };
  }

  private width(node: TextNode): number {
    return node.runs.reduce((sum, r) => sum + this.o.measure.width(r.face, node.size, r.text), 0);
  }

  /** A text on its baseline. */
  private line(node: TextNode): Shape {
    const up = node.size * UP;
    const box = { x: node.x, y: node.y - up, width: this.width(node), height: node.size * LINE };
    if (node.turn) {
      // Slides turn a box around its middle, the page around the beginning of its baseline.
      const a = (node.turn * Math.PI) / 180;
      const [dx, dy] = [box.width / 2, box.height / 2 - up];
      box.x = node.x + dx * Math.cos(a) - dy * Math.sin(a) - box.width / 2;
      box.y = node.y + dx * Math.sin(a) + dy * Math.cos(a) - box.height / 2;
    }
    return this.text(box, nameOf(node), `<a:p><a:pPr algn="l"/>${this.runs(node)}</a:p>`, { turn: node.turn ?? 0 });
  }

  private text(box: Box, name: string, body: string, { title = false, turn = 0 } = {}): Shape {
    const rot = turn ? ` rot="${((((turn % 360) + 360) % 360) * 60_000).toFixed(0)}"` : '';
    const kind = title ? '<p:cNvSpPr/><p:nvPr><p:ph type="title"/></p:nvPr>' : '<p:cNvSpPr txBox="1"/><p:nvPr/>';
    return {
      box,
      xml: `<p:sp><p:nvSpPr>${this.about(name, '', false)}${kind}</p:nvSpPr><p:spPr><a:xfrm${rot}>${placeXml(box).join('')}</a:xfrm><a:prstGeom prst="rect"><a:avLst/></a:prstGeom><a:noFill/></p:spPr><p:txBody><a:bodyPr wrap="none" lIns="0" tIns="0" rIns="0" bIns="0" anchor="t"><a:noAutofit/></a:bodyPr><a:lstStyle/>${body}</p:txBody></p:sp>`,
    };
  }

  private runs(node: TextNode): string {
    return node.runs.map((r) => this.run(r, node.size)).join('');
  }

  private run(run: TextRun, size: number): string {
    const { typeface, bold } = TYPEFACES[run.face];
    return `<a:r><a:rPr lang="${this.o.language}" sz="${Math.round(size * 100)}" b="${bold ? 1 : 0}" kern="0"><a:solidFill>${colourXml(run.fill)}</a:solidFill><a:latin typeface="${typeface}"/></a:rPr><a:t>${escapeXml(run.text)}</a:t></a:r>`;
  }
}

const altOf = (node: GroupNode): string => [node.name, node.alt].filter(Boolean).join(': ');

const placeXml = (b: Box): [at: string, size: string] => [
  `<a:off x="${emu(b.x)}" y="${emu(b.y)}"/>`,
  `<a:ext cx="${emu(b.width)}" cy="${emu(b.height)}"/>`,
];

function around(boxes: Box[]): Box {
  const x = Math.min(...boxes.map((b) => b.x));
  const y = Math.min(...boxes.map((b) => b.y));
  return {
    x,
    y,
    width: Math.max(...boxes.map((b) => b.x + b.width)) - x,
    height: Math.max(...boxes.map((b) => b.y + b.height)) - y,
  };
}

const pairs = (list: number[]): [number, number][] =>
  Array.from({ length: list.length / 2 }, (_, k) => [list[2 * k]!, list[2 * k + 1]!]);

function paintXml(p: Paint): string {
  const stroke = p.stroke === undefined ? '<a:ln><a:noFill/></a:ln>' : strokeXml(p);
  if (p.fill === undefined) return `<a:noFill/>${stroke}`;
  if (!p.fade) return `<a:solidFill>${colourXml(p.fill, p.opacity)}</a:solidFill>${stroke}`;
  const stops = fadeStops(p.fade).map(
    ([at, opacity]) =>
      `<a:gs pos="${Math.round(at * 100_000)}">${colourXml(p.fill!, opacity * (p.opacity ?? 1))}</a:gs>`,
  );
  return `<a:gradFill rotWithShape="1"><a:gsLst>${stops.join('')}</a:gsLst><a:lin ang="0" scaled="0"/></a:gradFill>${stroke}`;
}

const strokeXml = ({ stroke, strokeWidth = 1 }: { stroke?: string; strokeWidth?: number }): string =>
  `<a:ln w="${emu(strokeWidth)}"><a:solidFill>${colourXml(stroke!)}</a:solidFill></a:ln>`;
