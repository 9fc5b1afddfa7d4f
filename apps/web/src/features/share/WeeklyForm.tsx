'use client';
import { clockWords } from '@clembo/core';
import { type ReactNode, useId, useState } from 'react';
import { KINDS } from '@/ui/changeKinds';
import { Tick } from '@/ui/Tick';

type Kind = (typeof KINDS)[number][0];
type Format = 'pdf' | 'pptx' | 'html' | 'png';

/** What a plan does every week, as the server keeps it. */
export interface Said {
  on: boolean;
  weekday: number;
  minute: number;
  zone: string;
  folder: string;
  words: string;
  accept: 'all' | 'wait' | Kind[];
  folio: string | null;
  formats: Format[];
  out: string;
}

const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
const FORMATS: [Format, string][] = [
  ['pdf', 'PDF'],
  ['pptx', 'slides'],
  ['html', 'a web page'],
  ['png', 'pictures'],
];
/** What is usually taken without looking. */
const SAFE: Kind[] = ['moved', 'progressed', 'resized'];

const zoneHere = () => Intl.DateTimeFormat().resolvedOptions().timeZone;

interface Props {
  said: Said | null;
  folders: readonly string[];
  folios: readonly { id: string; name: string }[];
  onKeep: (said: Said) => Promise<void>;
  /** Null where it is kept already. */
  onCancel: (() => void) | null;
}

/** The weekly run as a sentence, every part of which can be changed. */
export function WeeklyForm({ said, folders, folios, onKeep, onCancel }: Props) {
  const [own, setOwn] = useState<Said>(
    said ?? {
      on: true,
      weekday: 4,
      minute: 16 * 60,
      zone: zoneHere(),
      folder: folders.find((f) => f !== 'out') ?? '',
      words: '',
      accept: 'wait',
      folio: folios[0]?.id ?? null,
      formats: ['pdf'],
      out: 'out',
    },
  );
  const list = useId();
  const set = (part: Partial<Said>) => setOwn({ ...own, ...part });
  const some = Array.isArray(own.accept) ? own.accept : null;
  const flip = <T,>(all: readonly T[], one: T): T[] =>
    all.includes(one) ? all.filter((x) => x !== one) : [...all, one];
  const isReady = own.folder.trim() !== '' && own.out.trim() !== '' && some?.length !== 0;
  const isSame = said !== null && JSON.stringify(said) === JSON.stringify(own);
  const field = 'rounded border border-line bg-paper px-2 py-0.5';
  return (
    <form
      className="mt-3 space-y-2.5 rounded-md bg-paper px-5 py-4 shadow-sm shadow-ink/5"
      onSubmit={(e) => {
        e.preventDefault();
        void onKeep(own);
      }}
    >
      <Line>
        Every
        <select
          aria-label="Day of the week"
          value={own.weekday}
          onChange={(e) => set({ weekday: Number(e.target.value) })}
          className={field}
        >
          {DAYS.map((d, k) => (
            <option key={d} value={k}>
              {d}
            </option>
          ))}
        </select>
        at
        <input
          type="time"
          aria-label="Time of day"
          required
          value={clockWords(own.minute)}
          onChange={(e) => {
            const [h, m] = e.target.value.split(':').map(Number);
            if (h !== undefined && m !== undefined) set({ minute: h * 60 + m });
          }}
          className={field}
        />
        <span className="text-soft">{own.zone}</span>
        {own.zone !== zoneHere() && (
          <button
            type="button"
            className="text-[14px] text-kelp hover:underline"
            onClick={() => set({ zone: zoneHere() })}
          >
            by the clocks here
          </button>
        )}
      </Line>
      <Line>
        take the newest file of
        <input
          aria-label="Folder"
          list={list}
          required
          value={own.folder}
          placeholder="folder"
          onChange={(e) => set({ folder: e.target.value })}
          className={`${field} w-48`}
        />
        <datalist id={list}>
          {folders.map((f) => (
            <option key={f} value={f} />
          ))}
        </datalist>
        whose name holds
        <input
          aria-label="Words in the name"
          value={own.words}
          placeholder="anything"
          onChange={(e) => set({ words: e.target.value })}
          className={`${field} w-48`}
        />
      </Line>
      <Line>
        and accept
        <select
          aria-label="What is accepted"
          value={some ? 'some' : (own.accept as string)}
          onChange={(e) => set({ accept: e.target.value === 'some' ? SAFE : (e.target.value as 'all' | 'wait') })}
          className={field}
        >
          <option value="wait">nothing: wait for me</option>
          <option value="some">some kinds of change</option>
          <option value="all">all changes</option>
        </select>
        {some?.length === 0 && <span className="text-madder">Choose at least one kind.</span>}
      </Line>
      {some && (
        <Line>
          {KINDS.map(([kind, , many]) => (
            <Tick key={kind} checked={some.includes(kind)} onFlip={() => set({ accept: flip(some, kind) })}>
              {many}
            </Tick>
          ))}
        </Line>
      )}
      <Line>
        then write
        <select
          aria-label="Folio"
          value={own.folio ?? ''}
          onChange={(e) => set({ folio: e.target.value || null })}
          className={`${field} max-w-72`}
        >
          <option value="">nothing</option>
          {folios.map((f) => (
            <option key={f.id} value={f.id}>
              {f.name}
            </option>
          ))}
        </select>
        {own.folio !== null && (
          <>
            as
            {FORMATS.map(([format, title]) => (
              <Tick
                key={format}
                checked={own.formats.includes(format)}
                onFlip={() => set({ formats: flip(own.formats, format) })}
              >
                {title}
              </Tick>
            ))}
            into
            <input
              aria-label="Folder for what is written"
              required
              value={own.out}
              onChange={(e) => set({ out: e.target.value })}
              className={`${field} w-40`}
            />
          </>
        )}
      </Line>
      <p className="text-[13.5px] text-soft">
        A file that cannot be read whole, that lost many activities, or whose columns changed always waits for you, and
        what was changed here by hand is left as it is. What fails is tried again three times, a quarter of an hour
        apart.
      </p>
      <div className="flex items-center gap-3">
        <button type="submit" className="action py-1!" disabled={!isReady || isSame}>
          {said ? 'Keep it' : 'Begin'}
        </button>
        {said && (
          <Tick checked={own.on} onFlip={() => set({ on: !own.on })}>
            by itself
          </Tick>
        )}
        {onCancel && (
          <button type="button" className="quiet py-1!" onClick={onCancel}>
            Leave it
          </button>
        )}
      </div>
    </form>
  );
}

const Line = ({ children }: { children: ReactNode }) => (
  <div className="flex flex-wrap items-center gap-x-2.5 gap-y-1.5">{children}</div>
);
