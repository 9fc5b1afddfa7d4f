'use client';
import type { ReactNode } from 'react';
import { useMay } from './useMay';

/** Controls of a plan that wait for nobody who may only look at it. */
export const EditOnly = ({ planId, children }: { planId: string; children: ReactNode }) => (
  <fieldset disabled={!useMay(planId).edit} className="contents">
    {children}
  </fieldset>
);
