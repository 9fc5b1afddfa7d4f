import type { KeyboardEvent } from 'react';

/** A list is opened by Enter as by the space bar: it stands where people expect a button. */
export function openByEnter(event: KeyboardEvent<HTMLElement>): void {
  if (event.key !== 'Enter' || event.currentTarget.ariaExpanded === 'true') return;
  event.preventDefault();
  event.currentTarget.click();
}
