'use client';
import type { ComponentProps } from 'react';
import { IntakeDesk } from '@/features/gather/desk/IntakeDesk';

/** The desk of an intake; while its plan is made, the screen that will show it is fetched. */
export function IntakeRoom(props: Omit<ComponentProps<typeof IntakeDesk>, 'onMaking'>) {
  return <IntakeDesk {...props} onMaking={() => void import('@/features/show/ContactSheet').catch(() => {})} />;
}
