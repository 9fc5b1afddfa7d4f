'use client';
import { type ComponentProps, type PointerEvent, useLayoutEffect, useRef } from 'react';
import type { SketchedRow } from '@/workers/answers/sketched';
import type { Drag } from './useDrag';

interface Props {
  row: SketchedRow;
  top: number;
  /** Width of the column of names. */
  names: number;
  x: (day: number) => number;
  perDay: number;
  drag: Drag | null;
  words: string | null;
  chosen: boolean;
  naming: boolean;
  /** What was typed of its name before it was there. */
  begin: () => string;
  onChoose: () => void;
  /** The new name, or null where it stays. */
  onName: (name: string | null) => void;
  onNaming: () => void;
  onBegin: (e: PointerEvent, how: 'move' | 'start' | 'finish') => void;
}

/** A drawn thing: its name at the left, its bar on the line. */
export function SketchRow(props: Props) {
  const { row, top, names, chosen, naming, onChoose, onName, onNaming } = props;
  return (
    <div
      role="listitem"
      data-row={row.ref}
      aria-current={chosen ? 'true' : undefined}
      className="pointer-events-none absolute inset-x-0"
      style={{ top, height: 38 }}
    >
      <div
        className={`pointer-events-auto sticky left-0 z-10 flex h-full items-center border-r border-b border-line/70 pr-2 ${chosen ? 'bg-[#f5e6c0]' : 'bg-paper'}`}
        style={{ width: names, paddingLeft: 12 + (row.level - 1) * 18 }}
        onClick={onChoose}
        onDoubleClick={onNaming}
      >
        {naming ? (
          <NameInput
            begin={props.begin}
            aria-label="Name"
            name={row.name}
            placeholder={row.kind.endsWith('Milestone') ? 'Name of the milestone' : 'Name of the phase'}
            maxLength={1000}
            onBlur={(e) => onName(e.currentTarget.value.trim())}
            onKeyDown={(e) => {
              e.stopPropagation();
              if (e.key === 'Enter') e.currentTarget.blur();
              if (e.key === 'Escape') {
                e.currentTarget.value = row.name;
                e.currentTarget.blur();
              }
            }}
            className="w-full min-w-0 rounded border border-marigold bg-paper px-1.5 py-0.5"
          />
        ) : (
          <span
            className={`truncate ${row.summary ? 'font-semibold' : ''} ${row.name === '' ? 'text-soft italic' : ''}`}
          >
            {row.name || 'not named'}
          </span>
        )}
      </div>
      {row.start !== null && row.finish !== null && <Bar {...props} start={row.start} finish={row.finish} />}
    </div>
  );
}

/** A name that is being typed; what was typed before it was there stands in it. */
function NameInput({ begin, name, ...rest }: ComponentProps<'input'> & { begin: () => string; name: string }) {
  const input = useRef<HTMLInputElement>(null);
  useLayoutEffect(() => {
    const el = input.current!;
    const typed = begin();
    if (typed !== '') el.value = typed;
    el.focus();
    if (typed === '') el.select();
  }, []);
  return <input ref={input} {...rest} defaultValue={name} />;
}

function Bar({
  row,
  names,
  x,
  perDay,
  drag,
  words,
  chosen,
  onBegin,
  onNaming,
  start,
  finish,
}: Props & { start: number; finish: number }) {
  const by = drag ? drag.to - drag.from : 0;
  const [first, last] = drag
    ? drag.how === 'move'
      ? [start + by, finish + by]
      : drag.how === 'start'
        ? [Math.min(start + by, finish), finish]
        : [start, Math.max(finish + by, start)]
    : [start, finish];
  const left = names + x(first);
  const width = Math.max(3, (last - first + 1) * perDay);
  const ring = chosen ? 'ring-2 ring-marigold' : '';
  const point = row.kind.endsWith('Milestone') && !row.summary;
  return (
    <>
      {point ? (
        <span
          data-bar={row.ref}
          className={`pointer-events-auto absolute top-[12px] size-[13px] -translate-x-1/2 rotate-45 cursor-grab touch-none bg-ink ${ring}`}
          style={{ left: names + x(last + 0.5) }}
          onPointerDown={(e) => onBegin(e, 'move')}
          onDoubleClick={onNaming}
        />
      ) : row.summary ? (
        <span
          data-bar={row.ref}
          className="pointer-events-auto absolute top-[10px] h-[18px] cursor-grab touch-none"
          style={{ left, width }}
          onPointerDown={(e) => onBegin(e, 'move')}
          onDoubleClick={onNaming}
        >
          <span className={`absolute inset-x-0 top-[8px] h-[3px] rounded bg-soft ${ring}`} />
        </span>
      ) : (
        <span
          data-bar={row.ref}
          className={`pointer-events-auto absolute top-[10px] h-[18px] cursor-grab touch-none rounded-[4px] border border-kelp bg-kelp/35 ${ring}`}
          style={{ left, width }}
          onPointerDown={(e) => onBegin(e, 'move')}
          onDoubleClick={onNaming}
        >
          {(['start', 'finish'] as const).map((end) => (
            <span
              key={end}
              data-end={end}
              className={`absolute inset-y-0 w-2 cursor-ew-resize ${end === 'start' ? '-left-1' : '-right-1'}`}
              onPointerDown={(e) => {
                e.stopPropagation();
                onBegin(e, end);
              }}
            />
          ))}
        </span>
      )}
      {words && (
        <span
          className="absolute z-30 rounded bg-ink px-2 py-0.5 text-[13px] whitespace-nowrap text-paper"
          style={{ left, top: 36 }}
        >
          {words}
        </span>
      )}
    </>
  );
}
