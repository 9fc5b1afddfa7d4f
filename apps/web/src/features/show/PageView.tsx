'use client';
import type { FlowPoint } from '@clembo/core';
import { type KeyboardEvent, memo, type ReactNode, useDeferredValue, useLayoutEffect, useRef, useState } from 'react';
import type { ComposedPage } from '@/workers/composing';
import { type Chosen, sameLane } from './hand/chosen';
import { useLights } from './hand/useLights';
import { GhostLine, WasLine } from './line/GhostLine';
import { Readout } from './line/Readout';
import type { LineMoves } from './line/useLineMoves';
import { type Carried, type HandActions, type Tool, usePageHands } from './hand/usePageHands';

interface Props {
  page: ComposedPage;
  chosen: Chosen;
  /** What the pointer is to put onto the page. */
  tool: Tool | null;
  actions: HandActions;
  /** A new title; null goes back to what the dates say. */
  onRetitle: (title: string | null) => void;
  automatic: boolean;
  /** What takes hold of works on a page of a line. */
  line: LineMoves | null;
  /** Where the work that a change is proposed for runs now. */
  was: FlowPoint[] | null;
  /** What stands over the page. */
  over?: ReactNode;
  /** As large as the desk is wide, to read the smallest type; otherwise the whole page. */
  wide: boolean;
}

interface TitleBox {
  left: number;
  top: number;
  width: number;
  size: number;
}

/**
 * The composed page, as large as the desk allows in its true proportions. A click chooses, a drag carries,
 * a double click on the title renames.
 */
export function PageView({ page, chosen, tool, actions, line, was, onRetitle, automatic, over, wide }: Props) {
  const desk = useRef<HTMLDivElement>(null);
  const sheet = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState<{ width: number; height: number } | null>(null);
  const [titling, setTitling] = useState<TitleBox | null>(null);
  const hands = usePageHands(page, tool, chosen, actions, line);
  const lights = useLights(page);
  // What is seen comes first.
  const heard = useDeferredValue(page);

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

  // The rings round what is chosen are laid over the page, which itself is left as composed.
  useLayoutEffect(() => {
    const svg = sheet.current?.querySelector('svg');
    svg?.querySelectorAll('.chosen-ring').forEach((r) => r.remove());
    if (!svg) return;
    for (const shapes of chosenShapes(svg, chosen, page)) addRing(svg, shapes);
  }, [chosen, page]);

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
            style={tool ? { cursor: 'crosshair' } : undefined}
            onPointerDown={hands.onPointerDown}
            {...lights}
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
          {hands.carried && <CarriedMark carried={hands.carried} page={page} />}
          {page.plane && !line?.ghost && <Readout page={page} plane={page.plane} sheet={sheet} />}
          {page.plane && was && <WasLine was={was} plane={page.plane} width={page.width} height={page.height} />}
          {page.plane && line?.ghost && (
            <GhostLine ghost={line.ghost} plane={page.plane} width={page.width} height={page.height} />
          )}
          {over}
          <ContentTable page={heard} />
        </div>
      )}
    </div>
  );
}

/** What is to be ringed: the marks of each thing, a note, the title of a lane. */
function chosenShapes(svg: SVGSVGElement, chosen: Chosen, page: ComposedPage): SVGGraphicsElement[][] {
  const all = (selector: string) => [...svg.querySelectorAll<SVGGraphicsElement>(selector)];
  switch (chosen?.kind) {
    case 'things':
      return chosen.refs.map((ref) => all(`[data-ref="${CSS.escape(ref)}"]:not(text):not(g)`));
    case 'note':
      return [all(`[data-note="${CSS.escape(chosen.id)}"]`)];
    case 'lane': {
      const lane = page.handles?.lanes.find((l) => sameLane(l.codes, chosen.codes));
      if (!lane) return [];
      const titles = all('text[data-role="lane"]').filter((t) => {
        const { x, y, height } = t.getBBox();
        return x <= lane.right && y + height / 2 >= lane.top && y + height / 2 <= lane.bottom;
      });
      const nearest = Math.max(...titles.map((t) => t.getBBox().x));
      return [titles.filter((t) => t.getBBox().x > nearest - 1)];
    }
    default:
      return [];
  }
}

function addRing(svg: SVGSVGElement, shapes: SVGGraphicsElement[]): void {
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
}

/** What is being carried: where a lane would come to lie, an area, an arrow. */
function CarriedMark({ carried, page }: { carried: NonNullable<Carried>; page: ComposedPage }) {
  return (
    <svg
      aria-hidden
      viewBox={`0 0 ${page.width} ${page.height}`}
      className="pointer-events-none absolute inset-0 size-full stroke-marigold"
      fill="none"
      strokeWidth={1.4}
    >
      {carried.kind === 'line' ? (
        <line x1={12} x2={carried.width - 12} y1={carried.y} y2={carried.y} strokeWidth={2.4} />
      ) : carried.kind === 'arrow' ? (
        <line x1={carried.from.x} y1={carried.from.y} x2={carried.to.x} y2={carried.to.y} />
      ) : (
        <rect
          x={Math.min(carried.from.x, carried.to.x)}
          y={Math.min(carried.from.y, carried.to.y)}
          width={Math.abs(carried.to.x - carried.from.x)}
          height={Math.abs(carried.to.y - carried.from.y)}
          className="fill-marigold/10"
        />
      )}
    </svg>
  );
}

/** The same content as a table, for people who do not see the page. */
const ContentTable = memo(function ContentTable({ page }: { page: ComposedPage }) {
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
});
