'use client';
import { fieldType, type RowPlace } from '@clembo/core';
import { ChevronDown, ChevronRight, GripVertical } from 'lucide-react';
import type { PointerEvent } from 'react';
import type { LedgerShown, Tone, WouldBar, WrongCell } from '@/workers/plan.worker';
import type { OpenRoom } from '@/workers/planRoom';
import { CellInput, type LeaveBy } from './CellInput';
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
  isChosen: (col: number) => boolean;
  wrongAt: (col: number) => WrongCell | undefined;
  pendingAt: (col: number) => string | undefined;
  would: WouldBar | null;
  /** Where rows that are dragged would come to stand by this one. */
  landing: RowPlace | null;
  /** Whether rows can be dragged. */
  carries: boolean;
  editing: { col: number; begin: string; over: boolean } | null;
  open: OpenRoom;
  onPick: (col: number, extend: boolean) => void;
  /** Lists only rows with what is in the cell. */
  onLike: (col: number) => void;
  onCarry: (e: PointerEvent) => void;
  onOver: (col: number) => void;
  onEdit: (col: number) => void;
  onToggle: () => void;
  onDone: (text: string, by: LeaveBy) => void;
  onLeave: () => void;
  /** Opens it with its neighbours. */
  onOpen: () => void;
  onGrip: (e: PointerEvent, grip: Grip) => void;
}

const TONES: Record<Tone, string> = {
  '': '',
  late: 'text-madder',
  ahead: 'text-harebell',
  bold: 'font-semibold',
  missing: 'bg-marigold/25',
};

const LANDINGS: Record<RowPlace | 'none', string> = {
  none: '',
  before: 'shadow-[inset_0_2px_0_var(--color-marigold)] z-20',
  behind: 'shadow-[inset_0_-2px_0_var(--color-marigold)] z-20',
  into: 'outline-2 -outline-offset-2 outline-marigold z-20',
};

/** One line of the sheet, with its strip. */
export function GridLine(props: Props) {
  const { line, fresh, index, top, grid, fields, focusCol, isChosen, wrongAt, pendingAt, editing, names } = props;
  const heading = line !== null && line.kind !== 'row';
  const cellOf = (col: number) => {
    const wrong = wrongAt(col);
    const shown = line ? (pendingAt(col) ?? wrong?.text ?? (col === 0 ? line.name : (line.cells[col - 1] ?? ''))) : '';
    return { wrong, shown };
  };
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      aria-level={line?.level}
      aria-selected={focusCol !== null}
      data-ref={line?.ref || undefined}
      className={`group/row absolute inset-x-0 grid border-b text-[14.5px] ${LANDINGS[props.landing ?? 'none']} ${heading ? 'border-line bg-wash' : 'border-line/50'} ${focusCol !== null ? 'bg-marigold/12' : ''}`}
      style={{ gridTemplateColumns: grid, height: 30, transform: `translateY(${top}px)` }}
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
            title={wrong?.why}
            aria-invalid={wrong ? true : undefined}
            onPointerDown={(e) => {
              if (e.button !== 0 || own) return;
              if (e.altKey) props.onLike(col);
              else props.onPick(col, e.shiftKey);
            }}
            onPointerEnter={(e) =>
              e.buttons === 1 && (e.target as HTMLElement).closest('[role="treegrid"]') && props.onOver(col)
            }
            onDoubleClick={() => props.onEdit(col)}
            className={`relative flex min-w-0 items-center ${col === 0 ? 'sticky left-0 z-10 border-r border-line/60 pl-5' : 'px-1.5'} ${number && col > 0 ? 'justify-end' : ''} ${col === 0 ? (focusCol !== null ? 'bg-[#f9f0da]' : heading ? 'bg-wash' : 'bg-paper') : ''} ${isChosen(col) ? 'bg-kelp/12!' : ''} ${focusCol === col ? 'outline-2 -outline-offset-2 outline-marigold' : ''} ${tone}`}
          >
            {col === 0 ? (
              <NameCell {...props} shown={shown} wrong={wrong !== undefined} />
            ) : (
              <span
                className={`truncate ${fieldType(field) === 'text' ? '' : 'font-narrow'} ${wrong ? 'text-madder underline decoration-dotted' : ''} ${heading || line?.summary ? 'text-soft' : ''}`}
              >
                {shown}
              </span>
            )}
            {own && (
              <CellInput
                open={props.open}
                field={field}
                reference={line?.ref ?? ''}
                label={fresh ? 'New activity' : `${names.get(field) ?? field} of ${line?.name || line?.ref}`}
                begin={own.begin}
                over={own.over}
                onDone={props.onDone}
                onLeave={props.onLeave}
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
        onDoubleClick={props.onOpen}
      >
        {line && (
          <Strip
            reference={line.ref}
            strip={line.strip}
            view={props.view}
            statusDay={props.statusDay}
            would={props.would}
            onGrip={line.kind === 'row' ? props.onGrip : null}
          />
        )}
      </span>
    </div>
  );
}

function NameCell({
  line,
  fresh,
  shown,
  wrong,
  carries,
  onToggle,
  onCarry,
}: Props & { shown: string; wrong: boolean }) {
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
          onPointerDown={onCarry}
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
          onClick={onToggle}
          className="mr-1 shrink-0 rounded hover:bg-line"
        >
          {line.closed ? <ChevronRight size={15} /> : <ChevronDown size={15} />}
        </button>
      ) : (
        <span className="mr-1 w-[15px] shrink-0 text-center text-kelp">{line.milestone ? '◆' : ''}</span>
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
          onClick={() => line.closed && onToggle()}
        >
          {[line.kind === 'row' ? '' : line.totals.split(' · ')[0], line.hides].filter(Boolean).join(' · ')}
        </button>
      )}
    </span>
  );
}
