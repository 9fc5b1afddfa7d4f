'use client';
import { type KeyboardEvent, type MouseEvent, useLayoutEffect, useRef, useState } from 'react';
import type { ComposedPage } from '@/workers/plan.worker';

interface Props {
  page: ComposedPage;
  chosen: string | null;
  onChoose: (ref: string | null) => void;
  /** A new title; null goes back to what the dates say. */
  onRetitle: (title: string | null) => void;
  automatic: boolean;
  /** As large as the desk is wide, to read the smallest type; otherwise the whole page. */
  wide: boolean;
}

interface TitleBox {
  left: number;
  top: number;
  width: number;
  size: number;
}

/** The composed page, as large as the desk allows in its true proportions. A click chooses, a double click on the title renames. */
export function PageView({ page, chosen, onChoose, onRetitle, automatic, wide }: Props) {
  const desk = useRef<HTMLDivElement>(null);
  const sheet = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState<{ width: number; height: number } | null>(null);
  const [titling, setTitling] = useState<TitleBox | null>(null);

  useLayoutEffect(() => {
    const fit = () => {
      const { clientWidth, clientHeight } = desk.current!;
      const scale = wide
        ? Math.max(clientWidth, page.width) / page.width
        : Math.min(clientWidth / page.width, clientHeight / page.height);
      setSize({ width: Math.floor(page.width * scale), height: Math.floor(page.height * scale) });
    };
    fit();
    const watch = new ResizeObserver(fit);
    watch.observe(desk.current!);
    return () => watch.disconnect();
  }, [page.width, page.height, wide]);

  // The ring round what is chosen is laid over the page, which itself is left as composed.
  useLayoutEffect(() => {
    const svg = sheet.current?.querySelector('svg');
    svg?.querySelectorAll('.chosen-ring').forEach((r) => r.remove());
    if (!svg || chosen === null) return;
    const shapes = [...svg.querySelectorAll<SVGGraphicsElement>(`[data-ref="${CSS.escape(chosen)}"]:not(text):not(g)`)];
    const boxes = shapes.map((s) => s.getBBox());
    if (boxes.length === 0) return;
    const left = Math.min(...boxes.map((b) => b.x)) - 2.5;
    const top = Math.min(...boxes.map((b) => b.y)) - 2.5;
    const right = Math.max(...boxes.map((b) => b.x + b.width)) + 2.5;
    const bottom = Math.max(...boxes.map((b) => b.y + b.height)) + 2.5;
    const ring = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
    const set = (name: string, value: number) => ring.setAttribute(name, String(value));
    set('x', left);
    set('y', top);
    set('width', right - left);
    set('height', bottom - top);
    set('rx', 3);
    ring.setAttribute('class', 'chosen-ring');
    svg.append(ring);
  }, [chosen, page]);

  const refAt = (event: MouseEvent) =>
    (event.target as Element).closest('[data-ref]')?.getAttribute('data-ref') ?? null;
  const openTitle = () => {
    const lines = [...sheet.current!.querySelectorAll<SVGTextElement>('[data-role="title"]')];
    if (lines.length === 0) return;
    const at = sheet.current!.getBoundingClientRect();
    const box = lines[0]!.getBoundingClientRect();
    const scale = (size?.width ?? page.width) / page.width;
    setTitling({
      left: box.left - at.left,
      top: box.top - at.top,
      width: at.width - 2 * (box.left - at.left),
      size: Number(lines[0]!.getAttribute('font-size')) * scale,
    });
  };
  const closeTitle = (text: string | null) => {
    setTitling(null);
    if (text === null) return;
    const wanted = text.trim();
    if (wanted === '') onRetitle(null);
    else if (wanted !== page.title || !automatic) onRetitle(wanted);
  };
  const onTitleKey = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Enter') closeTitle(event.currentTarget.value);
    if (event.key === 'Escape') closeTitle(null);
  };

  return (
    <div ref={desk} className={`flex h-full items-start ${wide ? 'overflow-auto' : 'justify-center'}`}>
      {size && (
        <div ref={sheet} className="relative shrink-0 shadow-md shadow-ink/15" style={size}>
          <div
            className="page page-in h-full [&_svg]:block [&_svg]:size-full"
            data-testid="page"
            onClick={(e) => onChoose(refAt(e))}
            onDoubleClick={(e) => (e.target as Element).closest('[data-role="title"]') && openTitle()}
            dangerouslySetInnerHTML={{ __html: page.svg }}
          />
          {titling && (
            <input
              autoFocus
              aria-label="Title of the page"
              defaultValue={page.title}
              placeholder="What the dates say"
              className="absolute rounded border border-marigold bg-paper font-serif font-semibold outline-none"
              style={{
                left: titling.left - 4,
                top: titling.top - 2,
                width: titling.width,
                fontSize: titling.size,
                padding: '0 3px',
              }}
              onBlur={(e) => closeTitle(e.target.value)}
              onKeyDown={onTitleKey}
            />
          )}
          <ContentTable page={page} />
        </div>
      )}
    </div>
  );
}

/** The same content as a table, for people who do not see the page. */
function ContentTable({ page }: { page: ComposedPage }) {
  return (
    <table className="sr-only">
      <caption>{page.title}</caption>
      <thead>
        <tr>
          {page.content.heads.map((h) => (
            <th key={h} scope="col">
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {page.content.rows.slice(0, 500).map((r, k) => (
          // biome-ignore lint: rows stand where they stand
          <tr key={k}>
            {r.cells.map((cell, c) =>
              c === page.content.named ? (
                <th key={page.content.heads[c]} scope="row">
                  {cell}
                </th>
              ) : (
                <td key={page.content.heads[c]}>{cell}</td>
              ),
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
