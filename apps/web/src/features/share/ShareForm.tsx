'use client';
import { type ReactNode, useState } from 'react';
import { Tick } from '@/ui/Tick';

/** What is asked of the server to share a page. */
export interface Wish {
  what: { exhibit: string } | { folio: string };
  lay: 'pages' | 'wall';
  frozen: { edition: string | null } | null;
  until: string | null;
  /** Whether what is open among the comments on it stands below it. */
  comments: boolean;
  password: string | null;
  origins: string[];
}

interface Named {
  id: string;
  name: string;
}

interface Props {
  exhibits: readonly Named[];
  folios: readonly Named[];
  editions: readonly Named[];
  /** The exhibit or folio that is wanted first. */
  first: string | null;
  onShare: (wish: Wish) => Promise<void>;
  onCancel: () => void;
}

const FIELD = 'rounded border border-line bg-paper px-2 py-0.5';
const FOLIO = 'folio ';
const NOW = 'now';
const LIVE = 'live';
const MONTH = 30 * 86_400_000;

const Line = ({ children }: { children: ReactNode }) => (
  <p className="flex flex-wrap items-center gap-x-2 gap-y-1.5">{children}</p>
);

/** What is shared and how, as a sentence every part of which can be changed. */
export function ShareForm({ exhibits, folios, editions, first, onShare, onCancel }: Props) {
  const keys = [...exhibits.map((e) => e.id), ...folios.map((f) => FOLIO + f.id)];
  const [what, setWhat] = useState(keys.find((k) => first !== null && k.endsWith(first)) ?? keys[0] ?? '');
  const [lay, setLay] = useState<Wish['lay']>('pages');
  const [state, setState] = useState(LIVE);
  const [until, setUntil] = useState(() => new Date(Date.now() + MONTH).toISOString().slice(0, 10));
  const [comments, setComments] = useState(false);
  const [password, setPassword] = useState<string | null>(null);
  const [origins, setOrigins] = useState<string | null>(null);
  const [error, setError] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const isFolio = what.startsWith(FOLIO);
  const isWall = isFolio && lay === 'wall';
  const share = async () => {
    setBusy(true);
    setError(null);
    try {
      await onShare({
        what: isFolio ? { folio: what.slice(FOLIO.length) } : { exhibit: what },
        lay: isFolio ? lay : 'pages',
        frozen: state === LIVE ? null : { edition: state === NOW || isFolio ? null : state },
        until: until === '' ? null : until,
        comments: comments && !isWall,
        password,
        origins: (origins ?? '').split(/[\s,]+/).filter(Boolean),
      });
    } catch (refused) {
      setError((refused as Error).message);
      setBusy(false);
    }
  };
  if (keys.length === 0)
    return <p className="mt-3 text-soft">There is no page yet that could be shared. Make one in Show.</p>;
  return (
    <form
      className="mt-3 space-y-2.5 rounded-md bg-paper px-5 py-4 shadow-sm shadow-ink/5"
      onSubmit={(e) => {
        e.preventDefault();
        void share();
      }}
    >
      <Line>
        Show
        <select
          aria-label="What is shared"
          className={`${FIELD} max-w-96`}
          value={what}
          onChange={(e) => {
            setWhat(e.target.value);
            if (e.target.value.startsWith(FOLIO) && state !== LIVE) setState(NOW);
          }}
        >
          <optgroup label="Pages">
            {exhibits.map((e) => (
              <option key={e.id} value={e.id}>
                {e.name}
              </option>
            ))}
          </optgroup>
          {folios.length > 0 && (
            <optgroup label="Folios">
              {folios.map((f) => (
                <option key={f.id} value={FOLIO + f.id}>
                  {f.name}
                </option>
              ))}
            </optgroup>
          )}
        </select>
        {isFolio && (
          <select
            aria-label="How it is laid out"
            className={FIELD}
            value={lay}
            onChange={(e) => setLay(e.target.value as Wish['lay'])}
          >
            <option value="pages">page by page, to be presented</option>
            <option value="wall">side by side, as on a wall</option>
          </select>
        )}
        <select
          aria-label="In which state"
          className={`${FIELD} max-w-80`}
          value={state}
          onChange={(e) => setState(e.target.value)}
        >
          <option value={LIVE}>as the plan is when it is opened</option>
          <option value={NOW}>as it stands now, for good</option>
          {!isFolio &&
            editions.map((e) => (
              <option key={e.id} value={e.id}>
                as it was in {e.name}
              </option>
            ))}
        </select>
        until
        <input
          type="date"
          aria-label="Last day"
          className={FIELD}
          value={until}
          onChange={(e) => setUntil(e.target.value)}
        />
        {until === '' ? (
          <span className="text-soft">without an end</span>
        ) : (
          <button type="button" className="text-[14px] text-kelp hover:underline" onClick={() => setUntil('')}>
            without an end
          </button>
        )}
      </Line>
      <Line>
        <Tick checked={password !== null} onFlip={() => setPassword(password === null ? '' : null)}>
          with a password
        </Tick>
        {password !== null && (
          <input
            aria-label="Password"
            required
            minLength={6}
            maxLength={200}
            autoComplete="off"
            value={password}
            onChange={(e) => setPassword(e.target.value)}
            className={`${FIELD} w-60`}
            placeholder="told apart from the address"
          />
        )}
        <span className="w-6" />
        <Tick checked={origins !== null} onFlip={() => setOrigins(origins === null ? '' : null)}>
          also within other sites
        </Tick>
        {origins !== null && (
          <input
            aria-label="Sites that may show it"
            required
            value={origins}
            onChange={(e) => setOrigins(e.target.value)}
            className={`${FIELD} w-80`}
            placeholder="https://intranet.saltmere.example"
          />
        )}
      </Line>
      {!isWall && (
        <Line>
          <Tick checked={comments} onFlip={() => setComments(!comments)}>
            with its open comments
          </Tick>
          {comments && (
            <span className="text-[14px] text-soft">Who said what, and when, is seen by all who open it.</span>
          )}
        </Line>
      )}
      {error && (
        <p role="alert" className="text-madder">
          {error}
        </p>
      )}
      <div className="flex gap-3 pt-1">
        <button type="submit" className="action" disabled={busy}>
          Share it
        </button>
        <button type="button" className="quiet" onClick={onCancel}>
          Leave it
        </button>
      </div>
    </form>
  );
}
