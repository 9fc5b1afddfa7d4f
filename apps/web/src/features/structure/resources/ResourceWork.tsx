'use client';
import type { Resource, SpreadShape } from '@clembo/core';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import { wrong } from '@/ui/Toasts';
import type { NeedShown } from '@/workers/answers/resources';
import type { OpenRoom } from '@/workers/planRoom';

const SHAPES: [SpreadShape, string][] = [
  ['uniform', 'evenly'],
  ['front', 'most at the start'],
  ['back', 'most at the end'],
  ['bell', 'most in the middle'],
];

interface Props {
  planId: string;
  open: OpenRoom;
  resource: Resource;
  need: NeedShown;
}

/** The activities that a resource works on: for how many hours, and how these lie over the activity. */
export function ResourceWork({ planId, open, resource, need }: Props) {
  const { busy, change } = usePlanChange(planId);
  const [text, setText] = useState('');
  const [found, setFound] = useState<{ ref: string; name: string }[]>([]);
  useEffect(() => {
    let current = true;
    open.room.find(text, 8).then((list) => current && setFound(list), wrong);
    return () => {
      current = false;
    };
  }, [open, text]);
  const set = (ref: string, hours: number, words: string) =>
    void change((room) => room.assigned(ref, resource.id, hours), words);
  const taken = new Set(need.activities.map((a) => a.ref));
  return (
    <div className="mt-5 max-w-[860px]">
      <h3 className="border-b border-line pb-0.5 font-semibold">Works on</h3>
      <ul>
        {need.activities.slice(0, 300).map((a) => (
          <li
            key={a.ref}
            data-work={a.ref}
            className="flex items-center gap-3 border-b border-line/50 py-0.5 text-[14.5px]"
          >
            <Link
              href={`/plans/${planId}/structure?ref=${encodeURIComponent(a.ref)}`}
              className="min-w-0 flex-1 truncate hover:text-kelp hover:underline"
            >
              {a.name}
            </Link>
            <span className="w-20 truncate font-narrow text-soft">{a.ref}</span>
            <input
              aria-label={`Hours on ${a.name}`}
              key={a.hours}
              defaultValue={a.hours}
              inputMode="decimal"
              onBlur={(e) => {
                const hours = Number(e.target.value.replace(',', '.'));
                if (!Number.isFinite(hours) || hours < 0) e.target.value = String(a.hours);
                else if (hours !== a.hours) set(a.ref, hours, `Hours of ${resource.name} on ${a.ref}`);
              }}
              onKeyDown={(e) => e.key === 'Enter' && (e.target as HTMLElement).blur()}
              className="w-20 rounded-md border border-line bg-paper px-2 py-0.5 text-right"
            />
            h
            <select
              aria-label={`How they lie on ${a.name}`}
              value={a.shape}
              disabled={busy}
              onChange={(e) => {
                const shape = e.target.value;
                void change(
                  (room) => room.shapedAssignment(a.ref, resource.id, shape),
                  `Spread ${resource.name} on ${a.ref}`,
                );
              }}
              className="rounded-md border border-line bg-paper px-1.5 py-0.5"
            >
              {SHAPES.map(([id, words]) => (
                <option key={id} value={id}>
                  {words}
                </option>
              ))}
            </select>
            <button
              type="button"
              className="text-soft hover:text-ink hover:underline"
              disabled={busy}
              onClick={() => set(a.ref, 0, `Take ${resource.name} from ${a.ref}`)}
            >
              take off
            </button>
          </li>
        ))}
      </ul>
      {need.activities.length > 300 && <p className="text-soft">and {need.activities.length - 300} more</p>}
      <div className="relative mt-3 w-80">
        <input
          aria-label="Works on another activity"
          placeholder="Works on … name or reference"
          value={text}
          onChange={(e) => setText(e.target.value)}
          className="w-full rounded-md border border-line bg-paper px-2.5 py-1"
        />
        {found.length > 0 && (
          <ul className="panel absolute top-full mt-1 w-full" aria-label="Found">
            {found.map((f) => (
              <li key={f.ref}>
                <button
                  type="button"
                  disabled={busy || taken.has(f.ref)}
                  className="flex w-full gap-2 rounded px-2 py-1 text-left hover:bg-wash disabled:opacity-50"
                  onClick={() => {
                    setText('');
                    void change(async (room) => {
                      // The whole length, until somebody says otherwise.
                      const { command } = await room.typed([
                        {
                          ref: f.ref,
                          field: 'resources',
                          text: [await room.editText(f.ref, 'resources', ''), resource.name].filter(Boolean).join(', '),
                        },
                      ]);
                      return command;
                    }, `${resource.name} works on ${f.ref}`);
                  }}
                >
                  <span className="min-w-0 truncate">{f.name}</span>
                  <span className="ml-auto font-narrow text-soft">{f.ref}</span>
                </button>
              </li>
            ))}
          </ul>
        )}
      </div>
    </div>
  );
}
