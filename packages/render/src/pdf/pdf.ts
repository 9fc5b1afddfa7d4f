import type { Face, FontMetrics, Scene, SceneNode } from '@clembo/scene';
import PDFDocument from 'pdfkit';

export interface PdfOptions {
  fonts: FontMetrics;
  /** Path of a font file by its name. */
  fontPath: (file: string) => string;
  /** Written as the date of the document; the same scene and date give the same bytes. */
  date: Date;
  author?: string;
}

/** Writes scenes as the pages of one PDF: vectors, embedded fonts, text that can be selected, title and language set. */
export async function writePdf(scenes: Scene[], options: PdfOptions): Promise<Uint8Array> {
  const [first] = scenes;
  if (!first) throw new Error('a PDF needs at least one page');
  const doc = new PDFDocument({
    autoFirstPage: false,
    font: null as unknown as string,
    pdfVersion: '1.7',
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
  for (const scene of scenes) {
    doc.addPage({ size: [scene.width, scene.height], margin: 0 });
    doc.rect(0, 0, scene.width, scene.height).fill(scene.paper);
    for (const node of scene.nodes) drawNode(doc, node, options.fonts);
  }
  doc.end();
  await ended;
  return Buffer.concat(chunks);
}

const facesOf = (scene: Scene): Face[] =>
  [...new Set(scene.nodes.flatMap((n) => (n.type === 'text' ? [n.face] : [])))].sort();

type Doc = InstanceType<typeof PDFDocument>;
type Gradient = ReturnType<Doc['linearGradient']>;

function drawNode(doc: Doc, node: SceneNode, fonts: FontMetrics): void {
  switch (node.type) {
    case 'text': {
      const { ascent, unitsPerEm } = fonts[node.face];
      doc.font(node.face, node.size).fillColor(node.fill);
      // pdfkit counts from the top of the line; the scene from the baseline.
      doc.text(node.text, node.x, node.y - (ascent / unitsPerEm) * node.size, { lineBreak: false, features: [] });
      return;
    }
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
      paint(doc, node, node.fade ? fadeFill(doc, node) : node.fill, node.fade ? 1 : node.opacity);
      return;
    case 'line':
      doc.moveTo(node.x1, node.y1).lineTo(node.x2, node.y2);
      paint(doc, node, undefined);
      return;
    case 'polygon':
      node.points.forEach(([x, y], i) => (i === 0 ? doc.moveTo(x, y) : doc.lineTo(x, y)));
      doc.closePath();
      paint(doc, node, node.fill);
      return;
    case 'circle':
      doc.circle(node.x, node.y, node.radius);
      paint(doc, node, node.fill);
      return;
  }
}

function fadeFill(doc: Doc, node: Extract<SceneNode, { type: 'rect' }>): Gradient {
  const full = node.opacity ?? 1;
  const fill = node.fill ?? '#000000';
  const gradient = doc.linearGradient(node.x, node.y, node.x + node.width, node.y);
  gradient.stop(0, fill, 0).stop(0.18, fill, full).stop(0.82, fill, full).stop(1, fill, 0);
  return gradient;
}

function paint(
  doc: Doc,
  node: { stroke?: string; strokeWidth?: number },
  fill: string | Gradient | undefined,
  opacity = 1,
): void {
  if (fill !== undefined) doc.fillColor(fill as string, typeof fill === 'string' ? opacity : 1);
  if (node.stroke) doc.lineWidth(node.strokeWidth ?? 1).strokeColor(node.stroke);
  if (fill !== undefined && node.stroke) doc.fillAndStroke();
  else if (fill !== undefined) doc.fill();
  else if (node.stroke) doc.stroke();
  if (opacity !== 1) doc.fillOpacity(1);
}
