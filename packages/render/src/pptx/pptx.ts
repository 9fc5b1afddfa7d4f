import {
  createMeasure,
  eachLeaf,
  type FontMetrics,
  type ImageNode,
  type Measure,
  scaled,
  type Scene,
  type SceneLink,
  textOf,
} from '@clembo/scene';
import { strFromU8, strToU8, unzipSync, type Zippable, zipSync } from 'fflate';
import PptxGenJS from 'pptxgenjs';
import { zipDate } from '../zipDate';
import { shapeTree } from './shapes';
import { colourXml, schemeXml } from './theme';

export interface PptxOptions {
  fonts: FontMetrics;
  /** Written as the date of the file; the same scenes and date give the same bytes. */
  date: Date;
  author?: string;
  /** What whoever presents wants to say, a text for each slide. */
  notes?: string[];
}

const MASTER = 'Page';

/**
 * Writes scenes as slides whose shapes can be edited: every thing of a page is a group of native shapes with its name
 * and an alternative text, texts are text boxes in the fonts and colours of the theme, and the notes say where the
 * data is from. The library makes the package; the trees of shapes are ours, since it knows no groups.
 *
 * All slides of a file have one size, that of the first page; other pages are fitted into it.
 */
export async function writePptx(
  scenes: Scene[],
  { fonts, date, author = '', notes = [] }: PptxOptions,
): Promise<Uint8Array> {
  const [first] = scenes;
  if (!first) throw new Error('slides need at least one page');
  const { width, height } = first;
  const measure = createMeasure(fonts);
  const deck = new PptxGenJS();
  deck.defineLayout({ name: 'Page', width: width / 72, height: height / 72 });
  deck.layout = 'Page';
  deck.title = first.title;
  deck.author = author;
  deck.company = '';
  deck.theme = { headFontFace: fonts.title.family, bodyFontFace: fonts.label.family };
  deck.defineSlideMaster({
    title: MASTER,
    objects: [
      {
        placeholder: {
          options: { name: 'Title', type: 'title', x: 0.4, y: 0.3, w: width / 72 - 0.8, h: 0.6 },
          text: '',
        },
      },
    ],
  });
  const pages = scenes.map((scene) => fitted(scene, width, height));
  for (const [k, page] of pages.entries()) {
    const slide = deck.addSlide({ masterName: MASTER });
    slide.addNotes([notes[k] ?? '', notesOf(page)].filter(Boolean).join('\n\n'));
    for (const image of imagesOf(page)) slide.addImage({ data: image.data, x: 0, y: 0, w: 1, h: 1 });
  }
  const files = unzipSync((await deck.write({ outputType: 'uint8array' })) as Uint8Array);
  const changed: Record<string, (text: string) => string> = {
    'docProps/core.xml': (text) => text.replace(/(<dcterms:\w+ [^>]*>)[^<]*/g, `$1${date.toISOString().slice(0, 19)}Z`),
    'docProps/app.xml': (text) => text.replace(/<Application>[^<]*/, '<Application>Clembo'),
    'ppt/theme/theme1.xml': (text) => text.replace(/<a:clrScheme.*?<\/a:clrScheme>/s, schemeXml()),
  };
  pages.forEach((page, k) => {
    changed[`ppt/slides/slide${k + 1}.xml`] = (text) => slideXml(text, page, measure);
  });
  // Links between slides: a shape that is not seen lies over what leads on.
  pages.forEach((page, k) => {
    const links = page.links ?? [];
    if (links.length === 0) return;
    changed[`ppt/slides/_rels/slide${k + 1}.xml.rels`] = (text) =>
      text.replace('</Relationships>', `${links.map(relationXml).join('')}</Relationships>`);
  });
  const out: Zippable = {};
  for (const name of Object.keys(files).sort()) {
    if (name.endsWith('/')) continue;
    const change = changed[name];
    out[name] = change ? strToU8(change(strFromU8(files[name]!))) : files[name]!;
  }
  return zipSync(out, { mtime: zipDate(date), level: 6 });
}

/** The slide with our tree of shapes; of its own it keeps the relations of its pictures. */
function slideXml(text: string, page: Scene, measure: Measure): string {
  const relations = [...text.matchAll(/r:embed="([^"]+)"/g)].map((m) => m[1]!);
  const images = imagesOf(page);
  const tree = shapeTree(page.nodes, {
    measure,
    language: page.language,
    width: page.width,
    pictureOf: (node) => relations[images.indexOf(node)]!,
  });
  const root =
    '<p:nvGrpSpPr><p:cNvPr id="1" name=""/><p:cNvGrpSpPr/><p:nvPr/></p:nvGrpSpPr><p:grpSpPr><a:xfrm><a:off x="0" y="0"/><a:ext cx="0" cy="0"/><a:chOff x="0" y="0"/><a:chExt cx="0" cy="0"/></a:xfrm></p:grpSpPr>';
  const paper = `<p:bg><p:bgPr><a:solidFill>${colourXml(page.paper)}</a:solidFill><a:effectLst/></p:bgPr></p:bg>`;
  return text.replace(
    /<p:cSld[^>]*>.*<\/p:cSld>/s,
    () => `<p:cSld>${paper}<p:spTree>${root}${tree}${(page.links ?? []).map(linkXml).join('')}</p:spTree></p:cSld>`,
  );
}

const SLIDE = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships/slide';
const relationXml = ({ page }: SceneLink, k: number): string =>
  `<Relationship Id="hop${k + 1}" Type="${SLIDE}" Target="slide${page + 1}.xml"/>`;

/** A rectangle without fill and line that leads to another slide (ECMA-376, 21.1.2.3.5). */
function linkXml({ x, y, width, height, page }: SceneLink, k: number): string {
  const emu = (points: number) => Math.round(points * 12_700);
  return `<p:sp><p:nvSpPr><p:cNvPr id="${9000 + k}" name="Leads to slide ${page + 1}"><a:hlinkClick r:id="hop${k + 1}" action="ppaction://hlinksldjump"/></p:cNvPr><p:cNvSpPr/><p:nvPr/></p:nvSpPr><p:spPr><a:xfrm><a:off x="${emu(x)}" y="${emu(y)}"/><a:ext cx="${emu(width)}" cy="${emu(height)}"/></a:xfrm><a:prstGeom prst="rect"><a:avLst/></a:prstGeom><a:solidFill><a:srgbClr val="FFFFFF"><a:alpha val="0"/></a:srgbClr></a:solidFill><a:ln><a:noFill/></a:ln></p:spPr></p:sp>`;
}

function imagesOf(scene: Scene): ImageNode[] {
  const list: ImageNode[] = [];
  eachLeaf(scene.nodes, (n) => {
    if (n.type === 'image') list.push(n);
  });
  return list;
}

/** What a speaker, or whoever finds the slide in a year, wants to know of it. */
function notesOf(scene: Scene): string {
  const source: string[] = [];
  eachLeaf(scene.nodes, (n) => {
    if (n.type === 'text' && n.role === 'source') source.push(textOf(n));
  });
  return [scene.title, scene.description, source.join(' ')].filter(Boolean).join('\n');
}

/** A page in the size of another: made smaller or larger as a whole, and put in the middle. */
function fitted(scene: Scene, width: number, height: number): Scene {
  if (scene.width === width && scene.height === height) return scene;
  const by = Math.min(width / scene.width, height / scene.height);
  const [dx, dy] = [(width - scene.width * by) / 2, (height - scene.height * by) / 2];
  return {
    ...scene,
    width,
    height,
    nodes: scene.nodes.map((n) => scaled(n, by, dx, dy)),
    links: (scene.links ?? []).map((l) => ({
      ...l,
      x: l.x * by + dx,
      y: l.y * by + dy,
      width: l.width * by,
      height: l.height * by,
    })),
  };
}
