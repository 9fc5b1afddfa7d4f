import type { FlowPoint } from '@clembo/core';
import type { PlaneShape } from '@clembo/scene';
import { pointOnPlane } from './onPlane';
import type { Ghost } from './useLineMoves';

/** Where a work runs now, under what is proposed for it. */
export function WasLine({
  was,
  plane,
  width,
  height,
}: {
  was: FlowPoint[];
  plane: PlaneShape;
  width: number;
  height: number;
}) {
  const points = was.map((p) => pointOnPlane(plane, p));
  return (
    <svg
      aria-hidden
      data-testid="was"
      viewBox={`0 0 ${width} ${height}`}
      className="pointer-events-none absolute inset-0 size-full stroke-marigold"
      fill="none"
      strokeWidth={1.6}
      strokeDasharray="4 3"
    >
      <clipPath id="was-plane">
        <rect x={plane.left} y={plane.top} width={plane.right - plane.left} height={plane.bottom - plane.top} />
      </clipPath>
      <polyline clipPath="url(#was-plane)" points={points.map((p) => `${p.x},${p.y}`).join(' ')} />
    </svg>
  );
}

/** A work where the hand carries it, over a page of a line, with what comes of it. */
export function GhostLine({
  ghost,
  plane,
  width,
  height,
}: {
  ghost: Ghost;
  plane: PlaneShape;
  width: number;
  height: number;
}) {
  const points = ghost.points.map((p) => pointOnPlane(plane, p));
  const [a, b] = [points[0]!, points.at(-1)!];
  const clash = ghost.clashes !== null && ghost.clashes > 0;
  return (
    <>
      <svg
        aria-hidden
        data-testid="ghost"
        viewBox={`0 0 ${width} ${height}`}
        className={`pointer-events-none absolute inset-0 size-full ${clash ? 'stroke-madder' : 'stroke-marigold'}`}
        fill="none"
        strokeWidth={2.4}
      >
        <clipPath id="ghost-plane">
          <rect x={plane.left} y={plane.top} width={plane.right - plane.left} height={plane.bottom - plane.top} />
        </clipPath>
        <g clipPath="url(#ghost-plane)">
          {ghost.holds ? (
            <rect
              x={Math.min(a.x, b.x)}
              y={Math.min(a.y, b.y)}
              width={Math.abs(b.x - a.x)}
              height={Math.abs(b.y - a.y)}
              className="fill-marigold/15"
            />
          ) : (
            <polyline points={points.map((p) => `${p.x},${p.y}`).join(' ')} strokeLinejoin="round" />
          )}
        </g>
      </svg>
      <p
        data-testid="ghost-words"
        className={`pointer-events-none absolute z-20 rounded px-2 py-0.5 text-[13.5px] whitespace-nowrap text-paper ${clash ? 'bg-madder' : 'bg-ink'}`}
        style={{
          left: `min(${(100 * ghost.at.x) / width}%, calc(100% - 260px))`,
          top: `calc(${(100 * ghost.at.y) / height}% + 16px)`,
        }}
      >
        {ghost.words}
        {ghost.clashes !== null &&
          (ghost.clashes === 0 ? ' · no clash' : ` · ${ghost.clashes} ${ghost.clashes === 1 ? 'clash' : 'clashes'}`)}
      </p>
    </>
  );
}
