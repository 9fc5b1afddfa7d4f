'use client';
import { useEffect, useRef } from 'react';

/** True while the person types into something, so that letters are letters. */
export const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName));

/**
 * Listens to keys of the page: names such as `e`, `[`, `mod+z`, `mod+shift+z` (mod is Ctrl or Cmd). Plain letters are
 * left alone while something is typed, and while a list or dialog is open.
 */
export function useKeys(keys: Record<string, () => void>): void {
  const current = useRef(keys);
  useEffect(() => {
    current.current = keys;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const mod = event.ctrlKey || event.metaKey;
      const name = `${mod ? 'mod+' : ''}${mod && event.shiftKey ? 'shift+' : ''}${event.key.length === 1 ? event.key.toLowerCase() : event.key}`;
      const run = current.current[name];
      if (!run || event.altKey) return;
      if (isTyping(event.target)) return;
      if (!mod && document.querySelector('[role="listbox"], [role="dialog"], [role="menu"]')) return;
      event.preventDefault();
      run();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}
