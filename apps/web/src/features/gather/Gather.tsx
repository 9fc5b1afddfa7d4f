'use client';
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { ClipboardPaste, FileUp, MoreHorizontal } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type DragEvent, useEffect, useRef, useState } from 'react';
import { ask } from '@/ui/ask';
import { Frame } from '@/ui/Frame';
import { useKeys } from '@/ui/keys';
import { toast, wrong } from '@/ui/Toasts';

interface PlanCard {
  id: string;
  name: string;
  edition: string;
  version: number;
  activities: number;
  span: string;
}

/** The way in: the plans there are, and a place for the next file or paste. */
export function Gather({ plans }: { plans: PlanCard[] }) {
  const router = useRouter();
  const [gone, setGone] = useState<string[]>([]);
  const shown = plans.filter((p) => !gone.includes(p.id));

  const remove = (p: PlanCard) => {
    setGone((g) => [...g, p.id]);
    // The plan is only put out of sight until the time for taking it back is over.
    const timer = setTimeout(() => {
      ask(`/api/plans/${p.id}`, { method: 'DELETE', keepalive: true }).then(() => router.refresh(), wrong);
    }, 7000);
    toast(`“${p.name}” is deleted.`, {
      seconds: 7,
      action: {
        label: 'Undo',
        run: () => {
          clearTimeout(timer);
          setGone((g) => g.filter((id) => id !== p.id));
        },
      },
    });
  };

  return (
    <Frame stage="Gather" plan={null}>
      <div className="h-full overflow-auto">
        <div className="mx-auto grid max-w-[1120px] grid-cols-[1fr_400px] gap-10 px-8 py-9">
          <section aria-labelledby="plans">
            <h1 id="plans" className="font-serif text-[26px] font-semibold">
              Your plans
            </h1>
            {shown.length === 0 ? (
              <p className="mt-4 max-w-md text-soft">
                There are none yet. Take in a file at the right, or start again with{' '}
                <code className="rounded bg-wash px-1">npm start -- --fresh</code> to get the demo plans.
              </p>
            ) : (
              <ul className="mt-4 divide-y divide-line overflow-hidden rounded-xl border border-line bg-paper">
                {shown.map((p) => (
                  <PlanRow key={p.id} plan={p} onDelete={() => remove(p)} />
                ))}
              </ul>
            )}
          </section>
          <TakeIn />
        </div>
      </div>
    </Frame>
  );
}

function PlanRow({ plan, onDelete }: { plan: PlanCard; onDelete: () => void }) {
  const [name, setName] = useState(plan.name);
  const [version, setVersion] = useState(plan.version);
  const [renaming, setRenaming] = useState(false);
  const rename = (wanted: string) => {
    setRenaming(false);
    const text = wanted.trim();
    if (text === '' || text === name) return;
    const before = name;
    setName(text);
    const json = { version, command: { do: 'setPlan', settings: { name: text } } };
    ask<{ version: number }>(`/api/plans/${plan.id}`, { method: 'PATCH', json }).then(
      (done) => setVersion(done.version),
      (error) => {
        setName(before);
        wrong(error);
      },
    );
  };
  return (
    <li className="group flex items-center gap-4 px-5 py-4 hover:bg-wash">
      <div className="min-w-0 flex-1">
        {renaming ? (
          <input
            autoFocus
            defaultValue={name}
            aria-label="Name of the plan"
            className="w-full rounded border border-line bg-paper px-2 py-0.5 text-[18px]"
            onBlur={(e) => rename(e.target.value)}
            onKeyDown={(e) => {
              if (e.key === 'Enter') rename(e.currentTarget.value);
              if (e.key === 'Escape') setRenaming(false);
            }}
          />
        ) : (
          <Link href={`/plans/${plan.id}/show`} className="block truncate text-[18px] font-semibold">
            {name}
          </Link>
        )}
        <p className="truncate text-soft">
          {plan.activities} activities · {plan.span}
        </p>
        <p className="truncate text-[14px] text-soft">{plan.edition}</p>
      </div>
      <Link href={`/plans/${plan.id}/structure`} className="quiet">
        Structure
      </Link>
      <Link href={`/plans/${plan.id}/show`} className="quiet">
        Show
      </Link>
      <Menu>
        <MenuButton className="rounded p-1 hover:bg-line" aria-label={`More for ${name}`}>
          <MoreHorizontal size={18} />
        </MenuButton>
        <MenuItems anchor="bottom end" className="panel w-40">
          <MenuItem>
            <button type="button" className="choice w-full" onClick={() => setRenaming(true)}>
              Rename
            </button>
          </MenuItem>
          <MenuItem>
            <button type="button" className="choice w-full" onClick={onDelete}>
              Delete
            </button>
          </MenuItem>
        </MenuItems>
      </Menu>
    </li>
  );
}

/** Takes in a file (chosen or dropped) or a paste, and leads to its column map. */
function TakeIn() {
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
      const result = await ask<{ intakeId?: string; planId?: string }>('/api/intakes', {
        method: 'POST',
        signal: stop.signal,
        ...body,
      });
      router.push(result.planId ? `/plans/${result.planId}/show` : `/intake/${result.intakeId}`);
    } catch (error) {
      if ((error as Error).name !== 'AbortError') wrong(error);
      setBusy(null);
    }
  };
  const sendFile = (f: File | undefined) => {
    if (!f) return;
    const form = new FormData();
    form.set('file', f);
    void send(`Reading ${f.name}`, { form });
  };
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    sendFile(event.dataTransfer.files[0]);
  };

  // A table that is pasted while nothing else is in hand goes where it belongs.
  useEffect(() => {
    const onPaste = (event: ClipboardEvent) => {
      if (event.target instanceof HTMLElement && ['INPUT', 'TEXTAREA'].includes(event.target.tagName)) return;
      const pasted = event.clipboardData?.getData('text/plain') ?? '';
      if (!pasted.includes('\n')) return;
      event.preventDefault();
      setText(pasted);
      area.current?.focus();
    };
    window.addEventListener('paste', onPaste);
    return () => window.removeEventListener('paste', onPaste);
  }, []);

  return (
    <section aria-labelledby="take-in">
      <h2 id="take-in" className="font-serif text-[26px] font-semibold">
        Take in
      </h2>
      <div
        onDragOver={(e) => {
          e.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={drop}
        className={`mt-4 rounded-xl border-2 border-dashed px-6 py-8 text-center ${over ? 'border-marigold bg-paper' : 'border-line bg-paper/60'}`}
      >
        <FileUp className="mx-auto text-kelp" size={26} aria-hidden />
        <p className="mt-2">Drop a spreadsheet here</p>
        <p className="text-[14px] text-soft">CSV or XLSX from any program, or Clembo’s own JSON</p>
        <button type="button" className="action mt-4" onClick={() => file.current?.click()} disabled={busy !== null}>
          Choose a file
        </button>
        <input
          ref={file}
          type="file"
          aria-label="File"
          className="sr-only"
          tabIndex={-1}
          accept=".csv,.tsv,.txt,.xlsx,.json"
          onChange={(e) => {
            sendFile(e.target.files?.[0]);
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
        rows={7}
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
            onClick={() => void send('Reading the pasted table', { json: { text } })}
          >
            Take in the paste
          </button>
        )}
      </div>
    </section>
  );
}
