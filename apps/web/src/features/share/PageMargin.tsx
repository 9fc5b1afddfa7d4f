'use client';
import { DayField } from '@/ui/DayField';
import { COVER, type Folio, type FolioPage, type Hop, OVERVIEW, type Place } from '@clembo/scene/folio';
import { dayOf, endOfDay, finishDayOf, isoDate, parseIsoDate, startOfDay } from '@clembo/core/time';
import { CornerDownRight, X } from 'lucide-react';
import Link from 'next/link';
import { useState } from 'react';
import type { OpenRoom } from '@/workers/planRoom';
import { OwnChoice } from './OwnChoice';
import { PointAt, type Pointed } from './PointAt';
import type { ShownPage } from './useRooms';

interface Props {
  shown: ShownPage;
  pages: readonly ShownPage[];
  hops: readonly Hop[];
  folio: Folio;
  numbers: readonly number[];
  /** The room of its plan, once it is open. */
  open: OpenRoom | null;
  onChange: (part: Partial<FolioPage>) => void;
  onHop: (from: Place, to: Place) => void;
  onDropHop: (hop: Hop) => void;
  onClose: () => void;
}

/** What a thing of a page is called. */
function nameOf(ref: string, page: ShownPage): string {
  for (const c of page.composed ?? []) {
    const row = c.content.rows.find((r) => r.ref === ref);
    if (row) return row.cells[c.content.named] || ref;
  }
  return ref;
}

/** The chosen page of a folio: its section, notes, range, and where it leads. */
export function PageMargin({ shown, pages, hops, folio, numbers, open, onChange, onHop, onDropHop, onClose }: Props) {
  const { page } = shown;
  const [from, setFrom] = useState<Pointed | null>(null);
  const [to, setTo] = useState('');
  const [spot, setSpot] = useState<Pointed | null>(null);
  const target = pages.find((p) => p.page.id === to) ?? null;
  const day = (moment: number | null, isFinish: boolean) =>
    moment === null ? '' : isoDate(isFinish ? finishDayOf(moment) : dayOf(moment));
  const typed = (iso: string, isFinish: boolean): number | null => {
    const d = parseIsoDate(iso);
    return d === null ? null : isFinish ? endOfDay(d) : startOfDay(d);
  };
  const words = ({ page: id, ref, box }: Place): string => {
    if (id === COVER) return 'the cover';
    if (id === OVERVIEW) return 'the overview';
    const own = pages.find((p) => p.page.id === id);
    if (!own) return 'a page that is gone';
    if (ref !== null) return `${nameOf(ref, own)} on ${own.name}`;
    return box === null ? own.name : `a place on ${own.name}`;
  };
  const pointedWords = (pointed: Pointed, on: ShownPage) =>
    pointed.ref === null ? 'the place that you drew' : nameOf(pointed.ref, on);
  const field = 'mt-0.5 w-full rounded border border-line bg-paper px-2 py-1';
  return (
    <aside
      aria-label="Page of the folio"
      className="flex w-[420px] shrink-0 flex-col overflow-auto border-l border-line bg-wash px-4 py-4"
    >
      <div className="flex items-start gap-2">
        <h2 className="min-w-0 flex-1 font-serif text-[18px] leading-tight font-semibold">{shown.name}</h2>
        {shown.plan && (
          <Link href={`/plans/${shown.plan.id}/show/${page.exhibit}`} className="text-[14px] text-kelp hover:underline">
            its own page
          </Link>
        )}
        <button type="button" aria-label="Close" className="rounded p-0.5 hover:bg-line" onClick={onClose}>
          <X size={16} />
        </button>
      </div>
      <div className="mt-2">
        <PointAt testId="lead-from" page={shown.composed?.[0] ?? null} pointed={from} onPoint={setFrom} />
      </div>
      <p className="mt-1.5 text-[13.5px] text-soft">
        {from === null
          ? 'Click something on the page, or draw a rectangle, to lead somewhere from it.'
          : `From ${pointedWords(from, shown)}:`}
      </p>
      {from !== null && (
        <div className="mt-1">
          <select
            aria-label="Leads to page"
            value={to}
            onChange={(e) => {
              setTo(e.target.value);
              setSpot(null);
            }}
            className={field}
          >
            <option value="">to which page?</option>
            {folio.cover && <option value={COVER}>the cover</option>}
            {folio.overview && <option value={OVERVIEW}>the overview</option>}
            {pages.map((p, k) => (
              <option key={p.page.id} value={p.page.id} disabled={p.page.id === page.id && p.composed === null}>
                {numbers[k]} {p.name}
              </option>
            ))}
          </select>
          {target && (
            <>
              <div className="mt-2">
                <PointAt testId="lead-to" page={target.composed?.[0] ?? null} pointed={spot} onPoint={setSpot} />
              </div>
              <p className="mt-1 text-[13.5px] text-soft">
                {spot === null
                  ? 'To the whole page; click something on it, or draw a rectangle, to arrive there, enlarged.'
                  : `To ${pointedWords(spot, target)}, enlarged.`}
              </p>
            </>
          )}
          {to !== '' && (
            <button
              type="button"
              className="action mt-1.5 py-1!"
              onClick={() => {
                onHop({ page: page.id, ...from }, { page: to, ...(spot ?? { ref: null, box: null }) });
                setFrom(null);
                setTo('');
                setSpot(null);
              }}
            >
              <CornerDownRight size={15} aria-hidden /> Make the hop
            </button>
          )}
        </div>
      )}
      {hops.length > 0 && (
        <ul aria-label="Hops from this page" className="mt-2 space-y-1 text-[14px]">
          {hops.map((h) => (
            <li key={h.id} className="flex items-start gap-1.5">
              <CornerDownRight size={14} aria-hidden className="mt-0.5 shrink-0 text-kelp" />
              <span className="min-w-0 flex-1 leading-tight">
                {h.from.ref === null ? 'a place' : nameOf(h.from.ref, shown)} leads to {words(h.to)}
              </span>
              <button
                type="button"
                aria-label="Remove the hop"
                className="rounded p-0.5 text-soft hover:bg-line"
                onClick={() => onDropHop(h)}
              >
                <X size={13} />
              </button>
            </li>
          ))}
        </ul>
      )}
      <label className="mt-4 block text-[14px] text-soft">
        A section begins here
        <input
          aria-label="Section"
          value={page.section}
          maxLength={200}
          onChange={(e) => onChange({ section: e.target.value })}
          className={`${field} text-ink`}
        />
      </label>
      <label className="mt-2 block text-[14px] text-soft">
        Notes for whoever presents
        <textarea
          aria-label="Notes"
          rows={4}
          value={page.notes}
          maxLength={10_000}
          onChange={(e) => onChange({ notes: e.target.value })}
          className={`${field} text-ink`}
        />
      </label>
      <div className="mt-2 flex gap-2 text-[14px] text-soft">
        {(
          [
            ['from', 'Shown from', false],
            ['to', 'to', true],
          ] as const
        ).map(([key, title, isFinish]) => (
          <label key={key} className="flex-1">
            {title}
            <DayField
              label={title}
              value={day(page[key], isFinish)}
              onChange={(said) => onChange({ [key]: typed(said, isFinish) })}
              className={`${field} text-ink`}
            />
          </label>
        ))}
      </div>
      {shown.brief && open && <OwnChoice page={page} brief={shown.brief} open={open} onChange={onChange} />}
      <p className="mt-1 text-[13px] text-soft">Only here; the exhibit keeps its own.</p>
    </aside>
  );
}
