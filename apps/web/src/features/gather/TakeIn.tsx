'use client';
import { ClipboardPaste, FileUp } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { ask, awaitJob } from '@/ui/ask';
import { useKeys } from '@/ui/keys';
import { wrong } from '@/ui/Toasts';
import { expectPlan, openSoon } from '@/workers/planRoom';
import { tableFromHtml } from './tableFromHtml';

const ACCEPTED = '.csv,.tsv,.txt,.xlsx,.json,.ics,.ifc,.clembo';

/** Takes in files (chosen, or dropped anywhere) or a paste, and leads to their column maps; for a plan, to refresh it. */
export function TakeIn({ planId = null }: { planId?: string | null }) {
  const router = useRouter();
  const file = useRef<HTMLInputElement>(null);
  const area = useRef<HTMLTextAreaElement>(null);
  const [text, setText] = useState('');
  const [busy, setBusy] = useState<{ what: string; stop: AbortController } | null>(null);
  const [over, setOver] = useState(false);
  useKeys({ n: () => file.current?.click() });

  const send = async (what: string, body: { form: FormData } | { json: unknown }) => {
    const stop = new AbortController();
    setBusy({ what, stop });
    try {
      const { job } = await ask<{ job: string }>('/api/intakes', { method: 'POST', signal: stop.signal, ...body });
      // The programs of what comes next are there before the file has been read.
      void import('./desk/IntakeDesk').catch(() => {});
      if (!planId) expectPlan();
      const result = await awaitJob<{ intakeId?: string; planId?: string }>(job, {
        signal: stop.signal,
        onStep: (words) => setBusy({ what: words || what, stop }),
      });
      if (result.planId) openSoon(result.planId);
      router.push(result.planId ? `/plans/${result.planId}/show` : `/intake/${result.intakeId}`);
    } catch (error) {
      if ((error as Error).name !== 'AbortError') wrong(error);
      setBusy(null);
    }
  };
  const sendFiles = (files: readonly File[]) => {
    if (files.length === 0) return;
    const form = new FormData();
    for (const f of files) form.append('file', f);
    if (planId) form.set('plan', planId);
    void send(files.length === 1 ? `Reading ${files[0]!.name}` : `Reading ${files.length} files`, { form });
  };
  const latest = useRef(sendFiles);
  useEffect(() => {
    latest.current = sendFiles;
  });

  // Files may be dropped anywhere, and a table that is pasted while nothing else is in hand goes where it belongs.
  useEffect(() => {
    const hasFiles = (e: DragEvent) => e.dataTransfer?.types.includes('Files') ?? false;
    let depth = 0;
    const enter = (e: DragEvent) => {
      if (!hasFiles(e)) return;
      depth++;
      setOver(true);
    };
    const leave = (e: DragEvent) => {
      if (hasFiles(e) && --depth <= 0) setOver(false);
    };
    const hover = (e: DragEvent) => hasFiles(e) && e.preventDefault();
    const drop = (e: DragEvent) => {
      if (!hasFiles(e)) return;
      e.preventDefault();
      depth = 0;
      setOver(false);
      latest.current([...e.dataTransfer!.files]);
    };
    const paste = (e: ClipboardEvent) => {
      const inArea = e.target === area.current;
      const elsewhere = e.target instanceof HTMLElement && ['INPUT', 'TEXTAREA'].includes(e.target.tagName);
      if (elsewhere && !inArea) return;
      const files = [...(e.clipboardData?.files ?? [])];
      const html = e.clipboardData?.getData('text/html') ?? '';
      const table = html === '' ? null : tableFromHtml(html);
      const plain = e.clipboardData?.getData('text/plain') ?? '';
      if (table === null && (inArea || !plain.includes('\n'))) {
        if (files.length > 0 && !inArea) latest.current(files);
        return;
      }
      e.preventDefault();
      setText(table ?? plain);
      area.current?.focus();
    };
    window.addEventListener('dragenter', enter);
    window.addEventListener('dragleave', leave);
    window.addEventListener('dragover', hover);
    window.addEventListener('drop', drop);
    window.addEventListener('paste', paste);
    return () => {
      window.removeEventListener('dragenter', enter);
      window.removeEventListener('dragleave', leave);
      window.removeEventListener('dragover', hover);
      window.removeEventListener('drop', drop);
      window.removeEventListener('paste', paste);
    };
  }, []);

  return (
    <section aria-labelledby="take-in">
      <h2 id="take-in" className="font-serif text-[26px] font-semibold">
        {planId ? 'Next week’s file' : 'Take in'}
      </h2>
      <div
        className={`mt-4 rounded-xl border-2 border-dashed px-6 py-7 text-center ${over ? 'border-marigold bg-paper' : 'border-line bg-paper/60'}`}
      >
        <FileUp className="mx-auto text-kelp" size={26} aria-hidden />
        <p className="mt-2">{over ? 'Let go anywhere' : 'Drop files anywhere on this page'}</p>
        <p className="text-[14px] text-soft">
          {planId
            ? 'It is compared first; nothing changes until you say so'
            : 'Spreadsheets, CSV, calendars, building models with a schedule, or a plan out of Clembo'}
        </p>
        <button type="button" className="action mt-4" onClick={() => file.current?.click()} disabled={busy !== null}>
          {planId ? 'Choose the file' : 'Choose files'}
        </button>
        <input
          ref={file}
          type="file"
          multiple
          aria-label="File"
          className="sr-only"
          tabIndex={-1}
          accept={ACCEPTED}
          onChange={(e) => {
            sendFiles([...(e.target.files ?? [])]);
            e.target.value = '';
          }}
        />
      </div>
      <label className="mt-5 flex items-center gap-2 font-semibold" htmlFor="paste">
        <ClipboardPaste size={16} className="text-kelp" aria-hidden /> Or paste a table
      </label>
      <textarea
        ref={area}
        id="paste"
        value={text}
        onChange={(e) => setText(e.target.value)}
        rows={6}
        spellCheck={false}
        placeholder={'Name\tStart\tFinish\nToe piling\t4 Aug 2026\t20 Oct 2026'}
        className="mt-1.5 w-full rounded-lg border border-line bg-paper p-3 font-narrow text-[14px] whitespace-pre"
      />
      <div className="mt-2 flex items-center justify-between">
        <span className="text-[14px] text-soft" role="status">
          {busy ? `${busy.what} …` : text === '' ? '' : `${text.trim().split('\n').length} rows`}
        </span>
        {busy ? (
          <button type="button" className="quiet" onClick={() => busy.stop.abort()}>
            Cancel
          </button>
        ) : (
          <button
            type="button"
            className="quiet"
            disabled={text.trim() === ''}
            onClick={() => void send('Reading the pasted table', { json: { text, ...(planId && { plan: planId }) } })}
          >
            Take in the paste
          </button>
        )}
      </div>
    </section>
  );
}
