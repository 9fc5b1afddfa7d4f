'use client';
import type { ContentTable } from '@clembo/scene';
import type { Brief } from '@clembo/scene/brief';
import { ask, awaitJob } from '@/ui/ask';
import type { ComposedPage } from '@/workers/composing';

/** Prints pages, each on paper of its own size, and nothing else of the screen. */
export function printPages(pages: ComposedPage[]): void {
  const holder = document.createElement('div');
  holder.className = 'print-pages';
  for (const [k, page] of pages.entries()) {
    const sheet = document.createElement('div');
    sheet.style.cssText = `page:sheet${k};width:${page.width}pt;height:${page.height}pt`;
    sheet.innerHTML = page.svg;
    holder.append(sheet);
  }
  const style = document.createElement('style');
  style.textContent = pages.map((p, k) => `@page sheet${k}{size:${p.width}pt ${p.height}pt;margin:0}`).join('');
  document.body.append(holder, style);
  const done = () => {
    holder.remove();
    style.remove();
    window.removeEventListener('afterprint', done);
  };
  window.addEventListener('afterprint', done);
  window.print();
}

/** Puts the picture of a page into the clipboard, written as it is for a file. */
export async function copyPicture(exhibitId: string, saved: () => Promise<void>, sheet: number): Promise<void> {
  const picture = async (): Promise<Blob> => {
    await saved();
    const { job } = await ask<{ job: string }>(`/api/exhibits/${exhibitId}/page`, {
      method: 'POST',
      json: { format: 'png', sheet },
    });
    await awaitJob(job);
    const answer = await fetch(`/api/jobs/${job}/file`);
    return new Blob([await answer.arrayBuffer()], { type: 'image/png' });
  };
  // The promise is handed over: the right to write to the clipboard ends soon after the click.
  await navigator.clipboard.write([new ClipboardItem({ 'image/png': picture() })]);
}

const escapeHtml = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);
/** A cell as a sheet takes it: on one line. */
const plain = (text: string): string => text.replace(/[\t\r\n]+/g, ' ');

/** Puts what a page shows into the clipboard, as a table for documents and as text for sheets. */
export async function copyTable({ heads, rows }: ContentTable): Promise<void> {
  const lines = [heads, ...rows.map((r) => r.cells)];
  const text = lines.map((cells) => cells.map(plain).join('\t')).join('\n');
  const html = `<table>${lines
    .map((cells, k) => {
      const tag = k === 0 ? 'th' : 'td';
      return `<tr>${cells.map((c) => `<${tag}>${escapeHtml(c)}</${tag}>`).join('')}</tr>`;
    })
    .join('')}</table>`;
  await navigator.clipboard.write([
    new ClipboardItem({
      'text/plain': new Blob([text], { type: 'text/plain' }),
      'text/html': new Blob([html], { type: 'text/html' }),
    }),
  ]);
}

/** Saves a brief as a file that the command line takes. */
export function saveBrief(name: string, brief: Brief): void {
  const address = URL.createObjectURL(new Blob([`${JSON.stringify(brief, null, 2)}\n`], { type: 'application/json' }));
  const link = document.createElement('a');
  link.href = address;
  link.download = `${name.replace(/[^\p{L}\p{N} ._-]+/gu, '').trim() || 'brief'}.json`;
  link.click();
  URL.revokeObjectURL(address);
}
