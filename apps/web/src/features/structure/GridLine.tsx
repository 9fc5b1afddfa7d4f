'use client';
import { fieldType, type RowPlace } from '@clembo/core';
import { ChevronDown, ChevronRight, GripVertical } from 'lucide-react';
import { memo, type PointerEvent } from 'react';
import type { WouldBar } from '@/workers/answers/consequences';
import type { LedgerShown, Tone, WrongCell } from '@/workers/answers/ledger';
import type { OpenRoom } from '@/workers/planRoom';
import { CellInput, type LeaveBy } from './CellInput';
import { ROW_HEIGHT } from './grid';
import { type Grip, Strip } from './Strip';
import type { View } from './stripView';

interface Props {
  /** What stands on it; null while it is being asked for. */
  line: LedgerShown | null;
  /** The line at the end, for something new. */
  fresh: boolean;
  index: number;
  top: number;
  grid: string;
  fields: string[];
  names: Map<string, string>;
  view: View;
  /** What lies behind bars of a calendar, as a CSS background. */
  ground: (calendar: string) => string;
  statusDay: number | null;
  focusCol: number | null;
  /** Columns of it that are chosen, from the first to the last; null for none. */
  chosenFrom: number | null;
  chosenTo: number;
  /** What was typed by field: what cannot be used, and what is not yet shown as what it has become. */
  wrongs: ReadonlyMap<string, WrongCell> | null;
  pending: ReadonlyMap<string, string> | null;
  would: WouldBar | null;
  /** Where rows that are dragged would come to stand by this one. */
  landing: RowPlace | null;
  /** Whether rows can be dragged. */
  carries: boolean;
  /** What is being typed into it, and the plan that this is about. */
  editing: { col: number; begin: string; over: boolean } | null;
  open: OpenRoom | null;
  /** Somebody else who is at this line. */
  other: string | null;
  on: LineActs;
}

/** What is done on lines; the same for all of them, and as long as the sheet stands. */
export interface LineActs {
  pick: (index: number, col: number, extend: boolean) => void;
  /** Lists only rows with what is in the cell. */
  like: (index: number, col: number) => void;
  carry: (e: PointerEvent, ref: string) => void;
  over: (index: number, col: number) => void;
  edit: (index: number, col: number) => void;
  toggle: (key: string) => void;
  /** What stands in the editor. */
  typed: (text: string) => void;
  done: (text: string | Promise<string>, by: LeaveBy) => void;
  leave: () => void;
  /** Opens it with its neighbours. */
  openUp: (ref: string) => void;
  grip: (e: PointerEvent, grip: Grip, line: LedgerShown) => void;
}

export const TONES: Record<Tone, string> = {
  '': '',
  late: 'text-madder',
  watch: 'text-marigold-deep',
  ahead: 'text-harebell',
  bold: 'font-semibold',
  soft: 'text-soft',
  missing: 'bg-marigold/25',
};

const TO_THE_END = 'To the end of the plan: nothing follows.';

const LANDINGS: Record<RowPlace | 'none', string> = {
  none: '',
  before: 'shadow-[inset_0_2px_0_var(--color-marigold)] z-20',
  behind: 'shadow-[inset_0_-2px_0_var(--color-marigold)] z-20',
  into: 'outline-2 -outline-offset-2 outline-marigold z-20',
};

/** One line of the sheet, with its strip; drawn again only when something of it is another. */
export const GridLine = memo(function GridLine(props: Props) {
  const { line, fresh, index, top, grid, fields, focusCol, editing, names, on, open } = props;
  const heading = line !== null && line.kind !== 'row';
  const isChosen = (col: number) => props.chosenFrom !== null && col >= props.chosenFrom && col <= props.chosenTo;
  const cellOf = (col: number) => {
    const field = fields[col]!;
    const wrong = props.wrongs?.get(field);
    const typed = props.pending?.get(field) ?? wrong?.text;
    return { wrong, shown: line ? (typed ?? (col === 0 ? line.name : (line.cells[col - 1] ?? ''))) : '' };
  };
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      aria-level={line?.level}
      aria-selected={focusCol !== null}
      data-ref={line?.ref || undefined}
      className={`group/row absolute inset-x-0 grid border-b text-[14.5px] ${LANDINGS[props.landing ?? 'none']} ${heading ? 'border-line bg-wash' : 'border-line/50'} ${focusCol !== null ? 'bg-marigold/12' : ''}`}
      style={{ gridTemplateColumns: grid, height: ROW_HEIGHT, transform: `translateY(${top}px)` }}
    >
      {fields.map((field, col) => {
        const { wrong, shown } = cellOf(col);
        const own = editing?.col === col ? editing : null;
        const number = fieldType(field) === 'number';
        const tone = line && col > 0 ? TONES[line.tones[col - 1] ?? ''] : '';
        return (
          <span
            key={field}
            id={`cell-${index}-${col}`}
            role="gridcell"
            aria-colindex={col + 1}
            data-cell={`${index} ${field}`}
            title={wrong?.why ?? (field === 'float' && line?.tones[col - 1] === 'soft' ? TO_THE_END : undefined)}
            aria-invalid={wrong ? true : undefined}
            onPointerDown={(e) => {
              if (e.button !== 0 || own) return;
              if (e.altKey) on.like(index, col);
              else on.pick(index, col, e.shiftKey);
            }}
            onPointerEnter={(e) =>
              e.buttons === 1 && (e.target as HTMLElement).closest('[role="treegrid"]') && on.over(index, col)
            }
            onDoubleClick={() => on.edit(index, col)}
            className={`relative flex min-w-0 items-center ${col === 0 ? 'sticky left-0 z-10 border-r border-line/60 pl-5' : 'px-1.5'} ${number && col > 0 ? 'justify-end' : ''} ${col === 0 ? (focusCol !== null ? 'bg-[#f9f0da]' : heading ? 'bg-wash' : 'bg-paper') : ''} ${isChosen(col) ? 'bg-kelp/12!' : ''} ${focusCol === col ? '-outline-offset-2 outline-marigold group-focus/sheet:outline-2' : ''} ${tone}`}
          >
            {col === 0 && props.other && (
              <span
                data-testid="other"
                title={`${props.other} is here`}
                className="absolute inset-y-0 left-0 w-[5px] bg-harebell"
              />
            )}
            {col === 0 ? (
              <NameCell {...props} shown={shown} wrong={wrong !== undefined} />
            ) : (
              <span
                className={`truncate ${fieldType(field) === 'text' ? '' : 'font-narrow'} ${wrong ? 'text-madder underline decoration-dotted' : ''} ${heading || line?.summary ? 'text-soft' : ''}`}
              >
                {shown}
              </span>
            )}
            {own && open && (
              <CellInput
                key={index}
                open={open}
                field={field}
                reference={line?.ref ?? ''}
                label={
                  fresh
                    ? col === 0
                      ? 'New activity'
                      : `${names.get(field) ?? field} of the new activity`
                    : `${names.get(field) ?? field} of ${line?.name || line?.ref}`
                }
                begin={own.begin}
                over={own.over}
                onTyped={on.typed}
                onDone={on.done}
                onLeave={on.leave}
              />
            )}
          </span>
        );
      })}
      <span
        role="gridcell"
        aria-colindex={fields.length + 1}
        data-strip
        className={`sticky right-0 z-[9] min-w-0 border-l border-line/60 ${focusCol !== null ? 'bg-[#f9f0da]' : heading ? 'bg-wash' : 'bg-paper'}`}
        style={line?.strip && !line.summary ? { backgroundImage: props.ground(line.strip.calendar) } : undefined}
        onDoubleClick={() => line?.ref && on.openUp(line.ref)}
      >
        {line && (
          <Strip
            reference={line.ref}
            strip={line.strip}
            view={props.view}
            statusDay={props.statusDay}
            would={props.would}
            onGrip={line.kind === 'row' ? (e, grip) => on.grip(e, grip, line) : null}
          />
        )}
      </span>
    </div>
  );
});

/** A line that has just come into sight: what it is called, for the frame or two until it is drawn in full. */
export const FaintLine = memo(function FaintLine({ line, top, grid }: Pick<Props, 'line' | 'top' | 'grid'>) {
  return (
    <div
      aria-hidden
      className="absolute inset-x-0 grid border-b border-line/50 text-[14.5px]"
      style={{ gridTemplateColumns: grid, height: ROW_HEIGHT, transform: `translateY(${top}px)` }}
    >
      {line && (
        <span className="sticky left-0 z-10 flex items-center border-r border-line/60 bg-paper pl-5">
          <span className="truncate" style={{ paddingLeft: (line.level - 1) * 16 + 19 }}>
            {line.name}
          </span>
        </span>
      )}
    </div>
  );
});

function NameCell({ line, fresh, shown, wrong, carries, on }: Props & { shown: string; wrong: boolean }) {
  if (fresh) return <span className="truncate text-soft italic">type a new activity, or paste rows</span>;
  if (!line) return null;
  const heading = line.kind !== 'row';
  return (
    <span className="flex min-w-0 flex-1 items-center" style={{ paddingLeft: (line.level - 1) * 16 }}>
      {carries && (
        <span
          aria-hidden
          data-carry
          title="Drag the row to another place"
          onPointerDown={(e) => on.carry(e, line.ref)}
          className="absolute inset-y-0 left-0 hidden w-5 cursor-grab touch-none items-center justify-center text-soft group-hover/row:flex"
        >
          <GripVertical size={13} />
        </span>
      )}
      {line.canClose ? (
        <button
          type="button"
          tabIndex={-1}
          aria-label={`${line.closed ? 'Open' : 'Close'} ${line.name}`}
          aria-expanded={!line.closed}
          onPointerDown={(e) => e.stopPropagation()}
          onClick={() => on.toggle(line.key)}
          className="mr-1 shrink-0 rounded hover:bg-line"
        >
          {line.closed ? <ChevronRight size={15} /> : <ChevronDown size={15} />}
        </button>
      ) : (
        <span className="mr-1 w-[15px] shrink-0 text-center text-kelp">{line.milestone ? '◆' : ''}</span>
      )}
      {line.colour && (
        <span aria-hidden className="mr-2 size-3 shrink-0 rounded-[3px]" style={{ background: line.colour }} />
      )}
      {line.number && <span className="mr-2 shrink-0 font-narrow text-soft">{line.number}</span>}
      <span
        className={`truncate ${heading ? 'font-serif text-[15.5px] font-semibold' : line.summary ? 'font-semibold' : ''} ${wrong ? 'text-madder underline decoration-dotted' : ''} ${shown === '' ? 'text-soft italic' : ''}`}
        title={shown}
      >
        {shown || 'not named'}
      </span>
      {(line.totals || line.hides) && (
        <button
          type="button"
          tabIndex={-1}
          className="ml-3 min-w-0 shrink truncate font-narrow text-[13.5px] text-soft hover:text-ink"
          title={line.hides ? `${line.hides}: show` : line.totals}
          onPointerDown={(e) => line.closed && e.stopPropagation()}
          onClick={() => line.closed && on.toggle(line.key)}
        >
          {[line.kind === 'row' ? '' : line.totals.split(' · ')[0], line.hides].filter(Boolean).join(' · ')}
        </button>
      )}
    </span>
  );
}
