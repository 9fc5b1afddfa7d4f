'use client';
import { signOut } from '@/ui/useMe';

export const SignOut = () => (
  <button type="button" className="quiet" onClick={() => void signOut()}>
    Sign out
  </button>
);
