'use client';
import { fieldAbout } from '@clembo/formats/typed';
import { type ReactNode, useEffect, useState } from 'react';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import { useNetworkAround } from '@/ui/plan/useNetworkAround';
import { PanelHead } from '@/ui/PanelHead';
import { wrong } from '@/ui/Toasts';
import type { About, AboutField, EditionFacts } from '@/workers/answers/about';
import type { Neighbour, Neighbours } from '@/workers/answers/neighbours';
import type { OpenRoom } from '@/workers/planRoom';
import { CellInput } from './CellInput';
import { TONES } from './GridLine';
import { AboutThis } from '@/ui/comments/AboutThis';
import { useChanges, whenWords } from './HistoryPanel';

interface Props {
  planId: string;
  open: OpenRoom;
  /** References of what is chosen. */
  refs: string[];
  onJump: (ref: string) => void;
  onClose: () => void;
}

/** All that is known of what is chosen, to be changed here: one activity, or many at once. */
export function LedgerMargin({ planId, open, refs, onJump, onClose }: Props) {
  const [about, setAbout] = useState<About | null>(null);
  const [around, setAround] = useState<Neighbours | null>(null);
  const { busy, change } = usePlanChange(planId);
  const network = useNetworkAround(planId);
  const one = refs.length === 1 ? refs[0]! : null;
  useEffect(() => {
    let current = true;
    open.room.about(refs).then((found) => current && setAbout(found), wrong);
    if (one === null) setAround(null);
    else open.room.neighbours(one).then((found) => current && setAround(found), wrong);
    return () => {
      current = false;
    };
  }, [open, refs, one]);
  if (!about) return null;
  return (
    <aside
      aria-label="Margin"
      className="w-[320px] shrink-0 overflow-auto border-t border-l border-line bg-paper px-4 pt-3 pb-6 text-[14.5px]"
    >
      <PanelHead title={about.title} close="Close the margin" onClose={onClose} />
      <p className="mt-0.5 text-[13.5px] text-soft">
        {one === null ? `${about.kind}; what is typed here goes into all of them` : `${about.ref} · ${about.kind}`}
      </p>
      {about.conflict && (
        <div role="note" className="mt-3 border-l-2 border-madder pl-2.5">
          <p className="text-madder">{about.conflict.words}</p>
          {about.conflict.ways.map((w) => (
            <button
              key={w.words}
              type="button"
              disabled={busy}
              className="block text-left text-kelp underline-offset-2 hover:underline"
              onClick={() => void change(w.command, w.words)}
            >
              {w.words}
            </button>
          ))}
        </div>
      )}
      <dl className="mt-3 grid grid-cols-[118px_minmax(0,1fr)] gap-x-2">
        {about.fields.map((f) => (
          <FieldRow
            key={`${refs.length} ${about.ref} ${f.id}`}
            open={open}
            field={f}
            refs={refs}
            onType={(text) =>
              change(
                async (room) => {
                  const { command, wrong: bad } = await room.typed(refs.map((ref) => ({ ref, field: f.id, text })));
                  if (bad.length > 0)
                    wrong(
                      new Error(
                        bad.length === refs.length
                          ? bad[0]!.why
                          : `${bad.length} of ${refs.length} were left as they are: ${bad[0]!.why}`,
                      ),
                    );
                  return command;
                },
                refs.length === 1 ? undefined : `Set ${f.name} of ${refs.length} activities`,
              )
            }
          />
        ))}
      </dl>
      {about.needed.length > 0 && (
        <Part title="For its date to hold">
          <ul className="space-y-1">
            {about.needed.map((n) => (
              <li key={n.ref}>
                <Name of={n} onJump={onJump} />
                <span className={`block font-narrow ${n.late ? 'text-madder' : 'text-soft'}`}>{n.words}</span>
              </li>
            ))}
          </ul>
        </Part>
      )}
      {around && around.before.length > 0 && (
        <Part title="Comes after">
          <LinkList of={around.before} onJump={onJump} />
          {one !== null && (
            <button type="button" className="quiet mt-2 py-0.5" onClick={() => network(one, about.title)}>
              As a network
            </button>
          )}
        </Part>
      )}
      {around && around.after.length > 0 && (
        <Part title="Leads to">
          <LinkList of={around.after} onJump={onJump} />
        </Part>
      )}
      {about.driving.length > 0 && (
        <Part title={`Driven by ${about.driving.length === 1 ? 'one activity' : `a path of ${about.driving.length}`}`}>
          <ol className="space-y-0.5">
            {about.driving.map((d) => (
              <li key={d.ref} className="truncate">
                <Name of={d} onJump={onJump} />
              </li>
            ))}
          </ol>
        </Part>
      )}
      {one !== null && <AboutThis planId={planId} anchor={{ ref: one, exhibitId: null }} />}
      {one !== null && <Before key={one} planId={planId} open={open} reference={one} />}
    </aside>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="mt-4">
      <h3 className="mb-1 border-b border-line pb-0.5 text-soft">{title}</h3>
      {children}
    </section>
  );
}

function Name({ of, onJump }: { of: { ref: string; name: string }; onJump: (ref: string) => void }) {
  return (
    <button
      type="button"
      className="max-w-full truncate text-left hover:text-kelp hover:underline"
      title={`Go to ${of.ref}`}
      onClick={() => onJump(of.ref)}
    >
      {of.name}
    </button>
  );
}

function LinkList({ of, onJump }: { of: Neighbour[]; onJump: (ref: string) => void }) {
  return (
    <ul className="space-y-0.5">
      {of.map((n) => (
        <li key={`${n.ref} ${n.type} ${n.lag}`} className="flex items-baseline justify-between gap-2">
          <span className="min-w-0">
            <Name of={n} onJump={onJump} />
          </span>
          <span className={`shrink-0 font-narrow ${n.broken ? 'text-madder' : n.driving ? 'text-ink' : 'text-soft'}`}>
            {n.type}
            {n.lag === 0 ? '' : ` ${n.lag > 0 ? '+' : '−'} ${Math.abs(n.lag)} d`}
            {n.slack && ` · ${n.slack}`}
          </span>
        </li>
      ))}
    </ul>
  );
}

/** A field with its value; clicked, it is typed into. */
function FieldRow({
  open,
  field,
  refs,
  onType,
}: {
  open: OpenRoom;
  field: AboutField;
  refs: string[];
  onType: (text: string) => Promise<boolean>;
}) {
  const [begin, setBegin] = useState<string | null>(null);
  const start = () => {
    if (!field.open) return;
    setBegin(field.differs ? '' : field.text);
    if (field.differs) return;
    // The field may hold it otherwise than it is typed.
    open.room.editText(refs[0]!, field.id, field.text).then(
      (known) => setBegin((b) => (b === null ? null : known)),
      () => {},
    );
  };
  return (
    <div className="contents">
      <dt className="truncate py-0.5 text-soft first-letter:uppercase" title={fieldAbout(field.id)}>
        {field.name}
      </dt>
      <dd className="relative min-h-[28px] min-w-0">
        {begin !== null ? (
          <CellInput
            open={open}
            field={field.id}
            reference={refs[0]!}
            label={field.name}
            begin={begin}
            over={false}
            onDone={(said) => {
              setBegin(null);
              void Promise.resolve(said).then((text) => (text === begin ? null : onType(text)));
            }}
            onLeave={() => setBegin(null)}
          />
        ) : field.open ? (
          <button
            type="button"
            aria-label={`${field.name}: ${field.differs ? 'several values' : field.text || 'nothing'}`}
            className={`w-full rounded px-1 py-0.5 text-left hover:bg-wash ${field.differs ? '' : TONES[field.tone]}`}
            onClick={start}
          >
            {field.differs ? (
              <span className="text-soft italic">several values</span>
            ) : (
              <span className="line-clamp-4 break-words whitespace-pre-wrap">
                {field.text || <span className="text-soft">–</span>}
              </span>
            )}
          </button>
        ) : (
          <span className={`block px-1 py-0.5 ${field.differs ? 'text-soft italic' : TONES[field.tone]}`}>
            {field.differs ? 'several values' : field.text || <span className="text-soft">–</span>}
          </span>
        )}
      </dd>
    </div>
  );
}

/** How the editions had it, and what was last done to it. */
function Before({ planId, open, reference }: { planId: string; open: OpenRoom; reference: string }) {
  const changes = useChanges(planId, open, reference);
  const [editions, setEditions] = useState<EditionFacts[]>([]);
  useEffect(() => {
    let current = true;
    open.room.inEditions(reference).then((found) => current && setEditions(found), wrong);
    return () => {
      current = false;
    };
  }, [open, reference]);
  return (
    <>
      {editions.length > 0 && (
        <Part title="In the editions">
          <dl>
            {editions.map((e, k) => (
              <div key={`${e.edition} ${k}`} className="mb-1">
                <dt>{e.edition}</dt>
                <dd className="font-narrow text-soft">{e.words}</dd>
              </div>
            ))}
          </dl>
        </Part>
      )}
      {changes && changes.length > 0 && (
        <Part title="Changed last">
          <ul className="space-y-0.5">
            {changes.slice(0, 8).map((c) => (
              <li key={c.id} className={c.undone ? 'text-soft line-through' : ''}>
                {c.words}{' '}
                <span className="font-narrow text-soft">
                  {[whenWords(c.createdAt), c.person].filter(Boolean).join(' · ')}
                </span>
              </li>
            ))}
          </ul>
        </Part>
      )}
    </>
  );
}
