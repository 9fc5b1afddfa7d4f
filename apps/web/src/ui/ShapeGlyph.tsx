import { marker } from '@clembo/scene/shapes';

/** A marker as it stands on pages. */
export function ShapeGlyph({ shape, colour, size = 15 }: { shape: string; colour: string; size?: number }) {
  const node = marker(shape, 8, 8, 6.6, {});
  return (
    <svg width={size} height={size} viewBox="0 0 16 16" fill={colour} aria-hidden className="shrink-0">
      {node.type === 'circle' ? (
        <circle cx={node.x} cy={node.y} r={node.radius} />
      ) : node.type === 'path' ? (
        <path d={node.steps.map((step) => step.join(' ')).join(' ')} />
      ) : null}
    </svg>
  );
}
