'use client';
import { useState } from 'react';
import { ask, awaitJob } from '@/ui/ask';
import { takeFile } from '@/ui/takeFile';
import { toast, wrong } from '@/ui/Toasts';

const OUT = [
  ['xlsx', 'Workbook', 'XLSX'],
  ['csv', 'Table', 'CSV'],
  ['ics', 'Calendar', 'iCalendar'],
  ['ifc', 'Model schedule', 'IFC tasks'],
  ['json', 'Clembo’s own', 'JSON'],
] as const;

const GRAPHS = [
  ['graphml', 'GraphML'],
  ['dot', 'DOT'],
] as const;

/** The plan as a file: for other programs, whole for another Clembo, or kept here to begin others from. */
export function TakeOut({ planId, name }: { planId: string; name: string }) {
  const take = (format: string) => void takeFile(`/api/plans/${planId}/file`, format);
  return (
    <section aria-labelledby="take-out">
      <h2 id="take-out" className="font-serif text-[22px] font-semibold">
        Take it out
      </h2>
      <p className="mt-1 text-soft">
        Whole, with its pages, books, editions and sources, to be sent and opened elsewhere by taking it in:
      </p>
      <button type="button" className="action mt-2 py-1" onClick={() => take('clembo')}>
        Everything in one file
      </button>
      <p className="mt-4 text-soft">As it stands, for other programs; each of these can be taken in again:</p>
      <div className="mt-2 flex flex-wrap gap-2">
        {OUT.map(([format, title, kind]) => (
          <button key={format} type="button" className="quiet py-1" onClick={() => take(format)}>
            {title} <span className="text-[14px] text-soft">{kind}</span>
          </button>
        ))}
      </div>
      <p className="mt-4 text-soft">Its network alone, for programs of graphs:</p>
      <div className="mt-2 flex flex-wrap gap-2">
        {GRAPHS.map(([format, title]) => (
          <button key={format} type="button" className="quiet py-1" onClick={() => take(format)}>
            {title}
          </button>
        ))}
      </div>
      <KeepStarter planId={planId} name={name} />
    </section>
  );
}

function KeepStarter({ planId, name }: { planId: string; name: string }) {
  const [as, setAs] = useState('');
  const [busy, setBusy] = useState(false);
  const keep = async () => {
    setBusy(true);
    try {
      const note = `From ${name}`;
      const { job } = await ask<{ job: string }>('/api/starters', {
        method: 'POST',
        json: { plan: planId, name: as.trim(), note },
      });
      await awaitJob(job);
      toast(`“${as.trim()}” is kept among the starters.`);
      setAs('');
    } catch (error) {
      wrong(error);
    } finally {
      setBusy(false);
    }
  };
  return (
    <form
      className="mt-4 flex flex-wrap items-center gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (as.trim() !== '') void keep();
      }}
    >
      <label className="flex items-center gap-2">
        <span className="text-soft">Or keep it as a starter for other plans, as</span>
        <input
          value={as}
          maxLength={200}
          placeholder="Name of the starter"
          onChange={(e) => setAs(e.target.value)}
          className="w-56 rounded-md border border-line bg-paper px-2.5 py-1"
        />
      </label>
      <button type="submit" className="quiet py-1" disabled={busy || as.trim() === ''}>
        Keep it
      </button>
    </form>
  );
}
