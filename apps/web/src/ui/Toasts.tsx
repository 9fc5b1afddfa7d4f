'use client';
import { X } from 'lucide-react';
import { useSyncExternalStore } from 'react';

interface Toast {
  id: number;
  text: string;
  tone: 'plain' | 'wrong';
  action?: { label: string; run: () => void };
}

let toasts: Toast[] = [];
let next = 1;
const listeners = new Set<() => void>();

function change(list: Toast[]): void {
  toasts = list;
  for (const l of listeners) l();
}

/** What was said, which can be said otherwise, or put away. */
export interface Said {
  say: (text: string) => void;
  end: () => void;
}

/** Says something at the foot of the screen; what is wrong stays until it is put away. */
export function toast(
  text: string,
  options: { tone?: Toast['tone']; action?: Toast['action']; seconds?: number } = {},
): Said {
  const id = next++;
  const { tone = 'plain', action, seconds = 6 } = options;
  // Said again, it stands once.
  change([...toasts.filter((t) => t.text !== text).slice(-2), { id, text, tone, ...(action && { action }) }]);
  if (tone === 'plain' && Number.isFinite(seconds)) setTimeout(() => putAway(id), seconds * 1000);
  return {
    say: (words) => change(toasts.map((t) => (t.id === id ? { ...t, text: words } : t))),
    end: () => putAway(id),
  };
}

export const wrong = (error: unknown): void => {
  toast(error instanceof Error ? error.message : String(error), { tone: 'wrong' });
};

const putAway = (id: number): void => change(toasts.filter((t) => t.id !== id));
const NONE: Toast[] = [];

export function Toasts() {
  const list = useSyncExternalStore(
    (l) => {
      listeners.add(l);
      return () => listeners.delete(l);
    },
    () => toasts,
    () => NONE,
  );
  return (
    <div
      className="pointer-events-none fixed inset-x-0 bottom-14 z-50 flex flex-col items-center gap-2"
      aria-live="polite"
    >
      {list.map((t) => (
        <div
          key={t.id}
          role={t.tone === 'wrong' ? 'alert' : 'status'}
          className={`pointer-events-auto flex max-w-xl items-start gap-3 rounded-lg px-4 py-2.5 text-paper shadow-lg ${t.tone === 'wrong' ? 'bg-madder' : 'bg-ink'}`}
        >
          <span>{t.text}</span>
          {t.action && (
            <button
              type="button"
              className="shrink-0 font-semibold whitespace-nowrap underline underline-offset-2"
              onClick={() => {
                t.action!.run();
                putAway(t.id);
              }}
            >
              {t.action.label}
            </button>
          )}
          <button type="button" aria-label="Put away" className="mt-0.5" onClick={() => putAway(t.id)}>
            <X size={16} />
          </button>
        </div>
      ))}
    </div>
  );
}
