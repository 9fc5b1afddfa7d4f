import { fadeStops } from '../fade';
import {
  type ImageNode,
  eachLeaf,
  type Face,
  type FontMetrics,
  type GroupNode,
  type Paint,
  type PathStep,
  type Role,
  type Scene,
  type SceneLink,
  type SceneNode,
  type TextNode,
} from '@clembo/scene';
import PDFDocument from 'pdfkit';

export interface PdfOptions {
  fonts: FontMetrics;
  /** Path of a font file by its name. */
  fontPath: (file: string) => string;
  /** Written as the date of the document; the same scene and date give the same bytes. */
  date: Date;
  author?: string;
  /** What the pages are called in the outline; their titles where nobody says. */
  names?: string[];
}

/**
 * Writes scenes as the pages of one PDF: vectors, embedded fonts, text that can be selected, title and language set,
 * tagged: the title as a heading, texts as paragraphs, every thing of the page as a figure with its text.
 */
export async function writePdf(scenes: Scene[], options: PdfOptions): Promise<Uint8Array> {
  const [first] = scenes;
  if (!first) throw new Error('a PDF needs at least one page');
  const doc = new PDFDocument({
    autoFirstPage: false,
    font: null as unknown as string,
    pdfVersion: '1.7',
    tagged: true,
    lang: first.language,
    displayTitle: true,
    info: {
      Title: first.title,
      Author: options.author ?? '',
      Creator: 'Clembo',
      Producer: 'Clembo',
      CreationDate: options.date,
      ModDate: options.date,
    },
  } as ConstructorParameters<typeof PDFDocument>[0]);
  const chunks: Uint8Array[] = [];
  doc.on('data', (chunk: Uint8Array) => chunks.push(chunk));
  const ended = new Promise<void>((resolve, reject) => {
    doc.on('end', resolve);
    doc.on('error', reject);
  });
  for (const scene of scenes)
    for (const face of facesOf(scene)) doc.registerFont(face, options.fontPath(options.fonts[face].file));
  const ends = destinations(scenes);
  scenes.forEach((scene, k) => {
    drawPage(doc, scene, options.fonts);
    // Ends of links are known by name; a rectangle of the page fills the window (PDF 32000-1, 12.3.2.2).
    for (const [name, box] of ends[k]!)
      if (box)
        doc.addNamedDestination(
          name,
          'FitR',
          box.x,
          scene.height - box.y - box.height,
          box.x + box.width,
          scene.height - box.y,
        );
      else doc.addNamedDestination(name, 'Fit');
    for (const l of scene.links ?? []) doc.goTo(l.x, l.y, l.width, l.height, nameOf(l));
    doc.outline.addItem(options.names?.[k] ?? scene.title);
  });
  doc.end();
  await ended;
  return Buffer.concat(chunks);
}

/** The name of the end of a link. */
const nameOf = ({ page, to }: SceneLink): string =>
  to ? `page ${page + 1} at ${to.x} ${to.y} ${to.width} ${to.height}` : `page ${page + 1}`;

/** The ends of all links, by the page that they are on. */
function destinations(scenes: readonly Scene[]): Map<string, SceneLink['to']>[] {
  const ends = scenes.map(() => new Map<string, SceneLink['to']>());
  for (const l of scenes.flatMap((s) => s.links ?? [])) ends[l.page]?.set(nameOf(l), l.to);
  return ends;
}

function facesOf(scene: Scene): Face[] {
  const faces = new Set<Face>();
  eachLeaf(scene.nodes, (n) => {
    if (n.type === 'text') for (const run of n.runs) faces.add(run.face);
  });
  return [...faces].sort();
}

type Doc = InstanceType<typeof PDFDocument>;
type Gradient = ReturnType<Doc['linearGradient']>;

/** What each role is to someone who has the page read out; shapes without a role of their own are decoration. */
const TAGS: Partial<Record<Role, string>> = {
  title: 'H1',
  subtitle: 'P',
  source: 'P',
  legend: 'P',
  scale: 'Span',
  status: 'Span',
  lane: 'H2',
  period: 'Span',
  key: 'P',
  notice: 'P',
};

function drawPage(doc: Doc, scene: Scene, fonts: FontMetrics): void {
  doc.addPage({ size: [scene.width, scene.height], margin: 0 });
  artifact(doc, () => doc.rect(0, 0, scene.width, scene.height).fill(scene.paper));
  const page = doc.struct('Document');
  doc.addStructure(page);
  for (const node of scene.nodes) {
    if (node.type === 'group' && (node.role === 'item' || node.role === 'note')) page.add(figure(doc, node, fonts));
    else if (node.type === 'text')
      page.add(doc.struct(TAGS[node.role ?? 'notice'] ?? 'P', {}, () => drawNode(doc, node, fonts)));
    else artifact(doc, () => drawNode(doc, node, fonts));
  }
  page.end();
}

/** A thing of the page: its marks as a figure with an alternative text, then its label as text. */
function figure(doc: Doc, group: GroupNode, fonts: FontMetrics): ReturnType<Doc['struct']> {
  const isText = (n: SceneNode) => n.type === 'text';
  const alt = [group.name, group.alt].filter(Boolean).join(': ');
  const marks = group.children.filter((n) => !isText(n));
  const texts = group.children.filter(isText);
  const whole = doc.struct('Sect');
  whole.add(doc.struct('Figure', { alt }, () => marks.forEach((n) => drawNode(doc, n, fonts))));
  if (texts.length > 0) whole.add(doc.struct('Caption', {}, () => texts.forEach((n) => drawNode(doc, n, fonts))));
  whole.end();
  return whole;
}

/** Draws what is decoration to someone who has the page read out. */
function artifact(doc: Doc, draw: () => void): void {
  doc.markContent('Artifact');
  draw();
  doc.endMarkedContent();
}

function drawNode(doc: Doc, node: SceneNode, fonts: FontMetrics): void {
  switch (node.type) {
    case 'group':
      doc.save();
      if (node.clip) doc.rect(node.clip.x, node.clip.y, node.clip.width, node.clip.height).clip();
      for (const child of node.children) drawNode(doc, child, fonts);
      doc.restore();
      return;
    case 'text':
      drawText(doc, node, fonts);
      return;
    case 'rect':
      if (node.width <= 0 || node.height <= 0) return;
      if (node.radius)
        doc.roundedRect(
          node.x,
          node.y,
          node.width,
          node.height,
          Math.min(node.radius, node.width / 2, node.height / 2),
        );
      else doc.rect(node.x, node.y, node.width, node.height);
      paint(doc, node, node.fade ? fadeFill(doc, node) : node.fill);
      return;
    case 'line':
      doc.moveTo(node.x1, node.y1).lineTo(node.x2, node.y2);
      paint(doc, node, undefined);
      return;
    case 'path':
      for (const step of node.steps) drawStep(doc, step);
      paint(doc, node, node.fill);
      return;
    case 'circle':
      doc.circle(node.x, node.y, node.radius);
      paint(doc, node, node.fill);
      return;
    case 'image':
      drawImage(doc, node);
      return;
  }
}

function drawImage(doc: Doc, node: ImageNode): void {
  const { part, turn } = node;
  if (!part && !turn) {
    doc.image(node.data, node.x, node.y, { width: node.width, height: node.height });
    return;
  }
  const side = turn === 90 || turn === 270;
  const [width, height] = side ? [node.height, node.width] : [node.width, node.height];
  const [cx, cy] = [node.x + node.width / 2, node.y + node.height / 2];
  const [x, y] = [cx - width / 2, cy - height / 2];
  const shown = part ?? { x: 0, y: 0, width: 1, height: 1 };
  const whole = { width: width / shown.width, height: height / shown.height };
  doc.save();
  if (turn) doc.rotate(turn, { origin: [cx, cy] });
  doc.rect(x, y, width, height).clip();
  doc.image(node.data, x - shown.x * whole.width, y - shown.y * whole.height, whole);
  doc.restore();
}

function drawText(doc: Doc, node: TextNode, fonts: FontMetrics): void {
  doc.save();
  if (node.turn) doc.rotate(node.turn, { origin: [node.x, node.y] });
  let { x } = node;
  for (const run of node.runs) {
    const { ascent, unitsPerEm } = fonts[run.face];
    doc.font(run.face, node.size).fillColor(run.fill);
    // pdfkit counts from the top of the line; the scene from the baseline.
    doc.text(run.text, x, node.y - (ascent / unitsPerEm) * node.size, { lineBreak: false, features: [] });
    x += doc.widthOfString(run.text, { features: [] });
  }
  doc.restore();
}

function drawStep(doc: Doc, step: PathStep): void {
  switch (step[0]) {
    case 'M':
      doc.moveTo(step[1], step[2]);
      return;
    case 'L':
      doc.lineTo(step[1], step[2]);
      return;
    case 'C':
      doc.bezierCurveTo(step[1], step[2], step[3], step[4], step[5], step[6]);
      return;
    case 'Z':
      doc.closePath();
      return;
  }
}

function fadeFill(doc: Doc, node: Extract<SceneNode, { type: 'rect' }>): Gradient {
  const full = node.opacity ?? 1;
  const fill = node.fill ?? '#000000';
  const gradient = doc.linearGradient(node.x, node.y, node.x + node.width, node.y);
  for (const [at, opacity] of fadeStops(node.fade!)) gradient.stop(at, fill, full * opacity);
  return gradient;
}

function paint(doc: Doc, node: Paint, fill: string | Gradient | undefined): void {
  const opacity = node.fade ? 1 : (node.opacity ?? 1);
  if (fill !== undefined) doc.fillColor(fill as string, typeof fill === 'string' ? opacity : 1);
  if (node.stroke) doc.lineWidth(node.strokeWidth ?? 1).strokeColor(node.stroke);
  if (fill !== undefined && node.stroke) doc.fillAndStroke();
  else if (fill !== undefined) doc.fill();
  else if (node.stroke) doc.stroke();
  if (opacity !== 1) doc.fillOpacity(1);
}
