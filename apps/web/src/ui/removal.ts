'use client';
import { useRouter } from 'next/navigation';
import { useCallback, useRef, useState } from 'react';
import { ask } from './ask';
import { useKeys } from './keys';
import { toast, wrong } from './Toasts';

/** How long the offer to take a removal back stays on screen, in seconds; by key it can be taken back later too. */
const OFFERED = 7;

/**
 * Removes things of a list by their addresses below `path`, at once; each removal can be taken back, from the foot
 * of the screen or with Ctrl Z.
 */
export function useRemoval(path: string) {
  const router = useRouter();
  const [gone, setGone] = useState<readonly string[]>([]);
  const removed = useRef<{ id: string; end: () => void }[]>([]);

  const show = useCallback((id: string) => setGone((g) => g.filter((other) => other !== id)), []);
  const takeBack = useCallback(
    (id: string) => {
      const at = removed.current.findIndex((r) => r.id === id);
      if (at < 0) return;
      removed.current.splice(at, 1)[0]!.end();
      ask(`${path}/${id}/restore`, { method: 'POST' }).then(() => {
        show(id);
        router.refresh();
      }, wrong);
    },
    [path, router, show],
  );
  const remove = useCallback(
    (id: string, name: string) => {
      setGone((g) => [...g, id]);
      ask(`${path}/${id}`, { method: 'DELETE', keepalive: true }).then(
        () => {
          const said = toast(`“${name}” is deleted.`, {
            seconds: OFFERED,
            action: { label: 'Undo', run: () => takeBack(id) },
          });
          removed.current.push({ id, end: said.end });
        },
        (error) => {
          show(id);
          wrong(error);
        },
      );
    },
    [path, show, takeBack],
  );
  useKeys({
    'mod+z': () => {
      const last = removed.current.at(-1);
      if (last) takeBack(last.id);
    },
  });
  return { remove, isGone: (id: string) => gone.includes(id) };
}
