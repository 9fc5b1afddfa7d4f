'use client';
import { useEffect, useState } from 'react';
import { ask } from './ask';
import { wrong } from './Toasts';

/** Who is signed in, and what they belong to. */
export interface Me {
  /** Whether signing in is needed at all. */
  needed: boolean;
  me: { name: string; email: string; role: 'owner' | 'editor' | 'commenter' | 'viewer' | 'guest' | null } | null;
  workspaces: { id: string; name: string; now: boolean }[];
}

let asked: Promise<Me> | null = null;
let known: Me | null = null;

/** Who is signed in; null until it is known. Asked once: signing in and out reads the page anew. */
export function useMe(): Me | null {
  const [me, setMe] = useState(known);
  useEffect(() => {
    let current = true;
    asked ??= ask<Me>('/api/me');
    asked.then(
      (found) => {
        known = found;
        if (current) setMe(found);
      },
      () => {
        asked = null;
      },
    );
    return () => {
      current = false;
    };
  }, []);
  return me;
}

/** Signs out; everything is read anew then. */
export const signOut = (): Promise<void> =>
  ask('/api/session', { method: 'DELETE' }).then(() => location.assign('/sign-in'), wrong);
