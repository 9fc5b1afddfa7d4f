import type { FontMetrics, Scene } from '@clembo/scene';
import { writeBpmn } from './bpmn/bpmn';
import type { FontFolder } from './fonts';
import { type SharedHtml, writeHtml } from './html/html';
import { writePdf } from './pdf/pdf';
import { writePng } from './png/png';
import { writePptx } from './pptx/pptx';
import { writeSvg } from './svg/svg';
import { writeXlsxOf } from './xlsx/xlsx';

/** What pages are written as. */
export const PAGE_FORMATS = ['pdf', 'pptx', 'svg', 'png', 'html', 'xlsx', 'bpmn'] as const;
export type PageFormat = (typeof PAGE_FORMATS)[number];

export const PAGE_TYPES: Record<PageFormat, string> = {
  pdf: 'application/pdf',
  pptx: 'application/vnd.openxmlformats-officedocument.presentationml.presentation',
  svg: 'image/svg+xml',
  png: 'image/png',
  html: 'text/html; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  bpmn: 'application/xml',
};

/** Whether one file of a format holds several pages. */
export const holdsSeveral = (format: PageFormat): boolean => !['svg', 'png', 'bpmn'].includes(format);

export interface WriteOptions {
  fonts: FontMetrics;
  folder: FontFolder;
  /** Written as the date of the file, where a format has one. */
  date: Date;
  /** What the pages are called, for outlines, contents and sheets. */
  names?: string[];
  /** What whoever presents wants to say, a text for each page. */
  notes?: string[];
  /** The pages are to be presented from the file, where a format can. */
  present?: boolean;
  /** The pages are shown to whoever has their address (a web page only). */
  shared?: SharedHtml | undefined;
}

/**
 * Writes pages as one file; a drawing, a picture or a process is of the first of them.
 *
 * @throws PageRefused for a page that the format cannot hold
 */
export async function writePages(format: PageFormat, scenes: Scene[], options: WriteOptions): Promise<Uint8Array> {
  const { fonts, folder, date, names = [], notes = [], present = false, shared } = options;
  const [first] = scenes;
  if (!first) throw new Error('a file needs at least one page');
  switch (format) {
    case 'pdf':
      return writePdf(scenes, { fonts, fontPath: folder.path, date, names });
    case 'pptx':
      return writePptx(scenes, { fonts, date, notes });
    case 'svg':
      return new TextEncoder().encode(writeSvg(first, { fonts, embed: folder.embedded() }));
    case 'png':
      return writePng(first, { fonts, fontPath: folder.path });
    case 'html':
      return new TextEncoder().encode(writeHtml(scenes, { fonts, embed: folder.embedded(), names, present, shared }));
    case 'xlsx':
      return writeXlsxOf(scenes, date, names);
    case 'bpmn':
      return new TextEncoder().encode(writeBpmn(first));
  }
}
