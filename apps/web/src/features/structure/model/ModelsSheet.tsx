'use client';
import type { ModelChanges } from '@clembo/core';
import { Trash2, Upload } from 'lucide-react';
import { useState } from 'react';
import { ask, awaitJob } from '@/ui/ask';
import { Sheet } from '@/ui/Sheet';
import { toast, wrong } from '@/ui/Toasts';
import type { ModelEntry } from '@/workers/answers/models';

/** The ending of files that a model may be, for the dialog that chooses one. */
const FILES = '.ifc,.glb,.gltf,.csv,.xlsx,.txt';

/** Takes in a model, says how it goes, and can be given up. */
export async function takeModelIn(planId: string, file: File, replaces: string | null): Promise<string | null> {
  const form = new FormData();
  form.set('file', file);
  if (replaces) form.set('replaces', replaces);
  try {
    const { job } = await ask<{ job: string }>(`/api/plans/${planId}/models`, { method: 'POST', form });
    const stop = new AbortController();
    const note = toast(`Reading ${file.name} …`, {
      seconds: Number.POSITIVE_INFINITY,
      action: { label: 'Cancel', run: () => stop.abort() },
    });
    try {
      const { model } = await awaitJob<{ model: string }>(job, {
        signal: stop.signal,
        onStep: (words) => words !== '' && note.say(`${words} …`),
      });
      return model;
    } finally {
      note.end();
    }
  } catch (error) {
    if ((error as Error).name !== 'AbortError') wrong(error);
    return null;
  }
}

/** A button that chooses a file of a model. */
export function TakeModel({
  title,
  quiet = false,
  onFile,
}: {
  title: string;
  quiet?: boolean;
  onFile: (file: File) => void;
}) {
  return (
    <label className={`${quiet ? 'quiet py-0.5! text-[14px]' : 'action'} cursor-pointer`}>
      <Upload size={15} aria-hidden /> {title}
      <input
        type="file"
        accept={FILES}
        className="sr-only"
        aria-label={title}
        onChange={(e) => {
          const [file] = e.target.files ?? [];
          if (file) onFile(file);
          e.target.value = '';
        }}
      />
    </label>
  );
}

interface Props {
  planId: string;
  models: ModelEntry[];
  onAgain: () => void;
  onAssigned: (model: ModelEntry) => void;
  onClose: () => void;
}

/** The models of a plan: take one in, a newer one in its place, what would change by that, and what could not be read. */
export function ModelsSheet({ planId, models, onAgain, onAssigned, onClose }: Props) {
  const [busy, setBusy] = useState(false);
  const work = async (what: () => Promise<unknown>) => {
    setBusy(true);
    try {
      await what();
    } catch (error) {
      wrong(error);
    } finally {
      setBusy(false);
      onAgain();
    }
  };
  const upload = (file: File, replaces: string | null) => void work(() => takeModelIn(planId, file, replaces));
  const taken = models.filter((m) => m.taken);
  const waiting = models.filter((m) => !m.taken);
  return (
    <Sheet
      title="Models"
      note="IFC 2x3, 4 and 4x3, glTF and GLB, or a table of blocks (name, x, y, z, width, depth, height)"
      onClose={onClose}
    >
      <ul className="space-y-3">
        {taken.map((m) => (
          <li key={m.id} className="rounded-md border border-line bg-paper px-4 py-3" data-model={m.key}>
            <div className="flex flex-wrap items-center gap-3">
              <p className="min-w-0 flex-1">
                <b>{m.file}</b>
                <span className="text-soft">
                  {' '}
                  · {m.elements} elements · known as {m.key}
                </span>
              </p>
              <TakeModel quiet title={`Newer state of ${m.key}`} onFile={(file) => upload(file, m.id)} />
              <button
                type="button"
                aria-label={`Remove the model ${m.key}`}
                title="Remove it; what is matched comes back when it does"
                className="rounded p-1 hover:bg-line"
                disabled={busy}
                onClick={() => void work(() => ask(`/api/models/${m.id}`, { method: 'DELETE' }))}
              >
                <Trash2 size={16} />
              </button>
            </div>
            {m.notes.length > 0 && (
              <ul className="mt-1.5 list-disc pl-5 text-[14px] text-marigold-deep">
                {m.notes.slice(0, 20).map((n) => (
                  <li key={n}>{n}</li>
                ))}
                {m.notes.length > 20 && <li>and {m.notes.length - 20} more</li>}
              </ul>
            )}
            {m.assigned.length > 0 && (
              <p className="mt-1.5 flex flex-wrap items-center gap-2 text-[14px]">
                It says itself which of {m.assigned.length} tasks{' '}
                {m.assigned.reduce((n, a) => n + a.elements.length, 0)} elements belong to.
                <button type="button" className="quiet px-2! py-0.5!" onClick={() => onAssigned(m)}>
                  Match them so
                </button>
              </p>
            )}
            {waiting
              .filter((w) => w.replaces === m.id)
              .map((w) => (
                <Newer
                  key={w.id}
                  model={w}
                  busy={busy}
                  onTake={() => void work(() => ask(`/api/models/${w.id}`, { method: 'POST' }))}
                  onLeave={() => void work(() => ask(`/api/models/${w.id}`, { method: 'DELETE' }))}
                />
              ))}
          </li>
        ))}
      </ul>
      <div className="mt-4">
        <TakeModel title="Take in a model" onFile={(file) => upload(file, null)} />
      </div>
    </Sheet>
  );
}

const LISTED = 8;

function Newer({
  model,
  busy,
  onTake,
  onLeave,
}: {
  model: ModelEntry;
  busy: boolean;
  onTake: () => void;
  onLeave: () => void;
}) {
  const changes: ModelChanges = model.changes ?? { added: [], changed: [], gone: [], same: 0 };
  const groups: [string, ModelChanges['added']][] = [
    ['new', changes.added],
    ['changed', changes.changed],
    ['gone', changes.gone],
  ];
  return (
    <div className="mt-2 rounded-md border border-marigold/60 bg-marigold/10 px-3 py-2" data-testid="newer-model">
      <p>
        <b>{model.file}</b> would bring {groups.map(([words, list]) => `${list.length} ${words}`).join(', ')};{' '}
        {changes.same} stay as they are. Matches and codes are kept by the elements’ identifiers.
      </p>
      <div className="mt-1 grid gap-x-6 gap-y-1 text-[13.5px] md:grid-cols-3">
        {groups.map(([words, list]) => (
          <ul key={words}>
            {list.slice(0, LISTED).map((c) => (
              <li key={c.ref} className="truncate" title={[c.name, c.storey, ...c.what].join('\n')}>
                {words}: {c.name || c.ref} <span className="text-soft">{c.what.length > 0 ? c.what[0] : c.storey}</span>
              </li>
            ))}
            {list.length > LISTED && (
              <li className="text-soft">
                and {list.length - LISTED} more {words}
              </li>
            )}
          </ul>
        ))}
      </div>
      <div className="mt-2 flex gap-2">
        <button type="button" className="action py-1!" disabled={busy} onClick={onTake}>
          Take it
        </button>
        <button type="button" className="quiet py-1!" disabled={busy} onClick={onLeave}>
          Leave it
        </button>
      </div>
    </div>
  );
}
