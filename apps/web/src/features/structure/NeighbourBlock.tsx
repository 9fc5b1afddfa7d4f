'use client';
import { type Command, LINK_TYPES, type LinkType } from '@clembo/core';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { type PointerEvent, useState } from 'react';
import type { WouldBar } from '@/workers/answers/consequences';
import type { LedgerShown, Strip as StripOf } from '@/workers/answers/ledger';
import type { Neighbour, Neighbours } from '@/workers/answers/neighbours';
import type { OpenRoom } from '@/workers/planRoom';
import { type Grip, Strip } from './Strip';
import { STRIP_LEAST, type View } from './stripView';

const SMALL = 32;
const OWN = 36;
const LABEL = 20;

/** How tall an activity stands that is opened with its neighbours. */
export const blockHeight = ({ before, after }: Neighbours): number =>
  2 * LABEL + (before.length + after.length) * SMALL + OWN + 26;

interface Props {
  open: OpenRoom;
  line: LedgerShown;
  neighbours: Neighbours;
  /** Widths of the name and of all other columns together. */
  nameWidth: number;
  cellsWidth: number;
  stripWidth: number;
  view: View;
  ground: (calendar: string) => string;
  statusDay: number | null;
  would: (ref: string) => WouldBar | null;
  onGrip: (e: PointerEvent, grip: Grip, ref: string, strip: StripOf) => void;
  onWalk: (ref: string) => void;
  onChange: (command: Command, words: string) => void;
  onLink: (field: 'predecessors' | 'successors', text: string) => void;
}

/** The chosen activity with what leads to it above and what follows below, on the same time scale. */
export function NeighbourBlock(props: Props) {
  const { line, neighbours: n, nameWidth, cellsWidth, view } = props;
  const grid = `${nameWidth}px ${cellsWidth}px minmax(${STRIP_LEAST}px, 1fr)`;
  const y = {
    before: (k: number) => LABEL + k * SMALL + SMALL / 2,
    own: LABEL + n.before.length * SMALL + OWN / 2,
    after: (k: number) => 2 * LABEL + n.before.length * SMALL + OWN + k * SMALL + SMALL / 2,
  };
  return (
    <div
      role="group"
      aria-label={`Neighbours of ${line.name}`}
      data-testid="neighbours"
      className="relative mx-1 rounded-lg border-2 border-marigold bg-[#fffdf6]"
    >
      <p className="pl-5 font-narrow text-[13px] text-soft" style={{ height: LABEL }}>
        leads to it
      </p>
      {n.before.map((x) => (
        <Row key={`${x.ref} ${x.type} ${x.lag}`} {...props} grid={grid} of={x} />
      ))}
      <div className="grid bg-marigold/15" style={{ gridTemplateColumns: grid, height: OWN }}>
        <span className="flex min-w-0 items-center pl-5 text-[16.5px] font-semibold">
          <span className="truncate">{line.name}</span>
        </span>
        <span className="flex min-w-0 items-center gap-3 px-1.5 font-narrow text-[14px] text-soft">
          <span className="truncate">{[line.ref, ...line.cells.filter(Boolean).slice(0, 3)].join(' · ')}</span>
        </span>
        <StripCell {...props} reference={line.ref} strip={line.strip} />
      </div>
      <p className="pl-5 font-narrow text-[13px] text-soft" style={{ height: LABEL }}>
        follows
      </p>
      {n.after.map((x) => (
        <Row key={`${x.ref} ${x.type} ${x.lag}`} {...props} grid={grid} of={x} />
      ))}
      <div className="flex gap-4 px-5 pb-1">
        <AddLink label="comes after" onAdd={(text) => props.onLink('predecessors', text)} />
        <AddLink label="leads to" onAdd={(text) => props.onLink('successors', text)} />
      </div>
      <Lines neighbours={n} line={line} view={view} width={props.stripWidth} y={y} />
    </div>
  );
}

function Row({ of, grid, ...props }: Props & { of: Neighbour; grid: string }) {
  return (
    <div className="grid text-[14.5px]" style={{ gridTemplateColumns: grid, height: SMALL }}>
      <span className="flex min-w-0 items-center pl-9">
        <button
          type="button"
          tabIndex={-1}
          className="truncate text-left hover:text-kelp hover:underline"
          title={`Go to ${of.ref}`}
          onClick={() => props.onWalk(of.ref)}
        >
          {of.name}
        </button>
      </span>
      <span className="flex min-w-0 items-center px-1.5">
        <LinkWords of={of} onChange={props.onChange} />
      </span>
      <StripCell {...props} reference={of.ref} strip={of.strip} />
    </div>
  );
}

/** A strip with room to work on: its bar is dragged, and links are drawn from it. */
function StripCell({ reference, strip, ...props }: Props & { reference: string; strip: StripOf | null }) {
  return (
    <span
      data-strip
      className="sticky right-0 min-w-0"
      style={strip && !strip.summary ? { backgroundImage: props.ground(strip.calendar) } : undefined}
    >
      <Strip
        reference={reference}
        strip={strip}
        view={props.view}
        statusDay={props.statusDay}
        would={props.would(reference)}
        big
        onGrip={strip ? (e, grip) => props.onGrip(e, grip, reference, strip) : null}
      />
    </span>
  );
}

const linkKey = ({ link }: Neighbour): string => `link ${link.from} ${link.to} ${link.type} ${link.lag}`;

const lagWords = (lag: number): string => (lag === 0 ? '' : ` ${lag > 0 ? '+' : '−'} ${Math.abs(lag)} d`);

/** Type, lag and slack of a link in words; opened, it is changed or removed. */
function LinkWords({ of, onChange }: { of: Neighbour; onChange: Props['onChange'] }) {
  const [lag, setLag] = useState(String(of.lag));
  const { link } = of;
  const put = (type: LinkType, days: number) =>
    onChange(
      {
        do: 'all',
        commands: [
          { do: 'removeLink', link },
          { do: 'addLink', link: { ...link, type, lag: Math.round(days * of.perDay) } },
        ],
      },
      `Change the link ${link.from} → ${link.to}`,
    );
  return (
    <Popover className="min-w-0">
      <PopoverButton
        id={linkKey(of)}
        className={`truncate rounded px-1 font-narrow text-[14px] hover:bg-line ${of.broken ? 'text-madder' : 'text-soft'}`}
        aria-label={`Link ${link.from} to ${link.to}: ${of.type}${lagWords(of.lag)}, ${of.slack}`}
      >
        <span className="font-semibold text-ink">
          {of.type}
          {lagWords(of.lag)}
        </span>{' '}
        {of.slack && `· ${of.slack}`}
      </PopoverButton>
      <PopoverPanel anchor={{ to: 'bottom start', gap: 4 }} className="panel flex items-center gap-2 p-3!" focus>
        {({ close }) => (
          <>
            {LINK_TYPES.map((t) => (
              <button
                key={t}
                type="button"
                aria-pressed={t === of.type}
                className={`rounded-full border px-2.5 py-0.5 ${t === of.type ? 'border-ink bg-ink text-paper' : 'border-line'}`}
                onClick={() => {
                  close();
                  put(t, of.lag);
                }}
              >
                {t}
              </button>
            ))}
            <form
              className="flex items-center gap-1.5"
              onSubmit={(e) => {
                e.preventDefault();
                const days = Number(lag.replace(',', '.'));
                if (!Number.isFinite(days)) return;
                close();
                put(of.type, days);
              }}
            >
              <input
                aria-label="Lag in working days"
                value={lag}
                inputMode="decimal"
                onChange={(e) => setLag(e.target.value)}
                className="w-14 rounded-md border border-line bg-paper px-2 py-0.5"
              />
              <button type="submit" className="quiet py-0.5">
                days of lag
              </button>
            </form>
            <button
              type="button"
              className="quiet py-0.5"
              onClick={() => {
                close();
                onChange({ do: 'removeLink', link }, `Remove the link ${link.from} → ${link.to}`);
              }}
            >
              Remove
            </button>
          </>
        )}
      </PopoverPanel>
    </Popover>
  );
}

function AddLink({ label, onAdd }: { label: string; onAdd: (text: string) => void }) {
  const [text, setText] = useState('');
  return (
    <form
      className="flex items-center gap-1.5 text-[14px] text-soft"
      onSubmit={(e) => {
        e.preventDefault();
        if (text.trim() === '') return;
        onAdd(text.trim());
        setText('');
      }}
    >
      <label className="flex items-center gap-1.5">
        {label}
        <input
          value={text}
          placeholder="A12, A12 SS+2d"
          onChange={(e) => setText(e.target.value)}
          onKeyDown={(e) => e.stopPropagation()}
          className="h-6 w-36 rounded-md border border-line bg-paper px-2"
        />
      </label>
    </form>
  );
}

/** The links as lines from bar to bar. */
function Lines({
  neighbours,
  line,
  view,
  width,
  y,
}: {
  neighbours: Neighbours;
  line: LedgerShown;
  view: View;
  width: number;
  y: { before: (k: number) => number; own: number; after: (k: number) => number };
}) {
  const own = line.strip;
  if (!own) return null;
  const x = (day: number) => (width * (day - view.from)) / (view.to - view.from);
  const ends = (type: LinkType, from: StripOf, to: StripOf): [number, number] => [
    x(type === 'FS' || type === 'FF' ? from.to : from.from),
    x(type === 'FS' || type === 'SS' ? to.from : to.to),
  ];
  const height = y.after(neighbours.after.length);
  const path = (x1: number, y1: number, x2: number, y2: number) => {
    const bend = Math.max(12, Math.abs(x2 - x1) / 2);
    return `M${x1} ${y1}C${x1 + bend} ${y1} ${x2 - bend} ${y2} ${x2} ${y2}`;
  };
  const drawn = [
    ...neighbours.before.map((b, k) => ({
      of: b,
      d: b.strip && path(...mix(ends(b.type, b.strip, own), y.before(k), y.own)),
    })),
    ...neighbours.after.map((a, k) => ({
      of: a,
      d: a.strip && path(...mix(ends(a.type, own, a.strip), y.own, y.after(k))),
    })),
  ];
  return (
    <svg
      aria-hidden
      className="pointer-events-none absolute top-0 right-0 overflow-hidden"
      style={{ width, height }}
      viewBox={`0 0 ${width} ${height}`}
    >
      {drawn.map(
        ({ of, d }) =>
          d && (
            <path
              key={linkKey(of)}
              d={d}
              fill="none"
              className="pointer-events-auto cursor-pointer hover:stroke-kelp"
              onClick={() => document.getElementById(linkKey(of))?.click()}
              stroke={of.broken ? 'var(--color-madder)' : of.driving ? 'var(--color-ink)' : 'var(--color-soft)'}
              strokeWidth={of.driving || of.broken ? 1.6 : 0.9}
              strokeOpacity={of.driving || of.broken ? 1 : 0.6}
            />
          ),
      )}
    </svg>
  );
}

const mix = ([x1, x2]: [number, number], y1: number, y2: number): [number, number, number, number] => [x1, y1, x2, y2];
