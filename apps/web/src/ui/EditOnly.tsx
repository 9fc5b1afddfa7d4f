'use client';
import type { ReactNode } from 'react';
import { useMay } from './useMay';

/** Controls that change a plan: for whoever may only look at it they are seen, and cannot be used. */
export const EditOnly = ({ planId, children }: { planId: string; children: ReactNode }) => (
  <fieldset disabled={!useMay(planId).edit} className="contents">
    {children}
  </fieldset>
);
