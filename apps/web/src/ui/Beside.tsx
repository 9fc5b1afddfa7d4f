'use client';
import { autoUpdate, flip, FloatingPortal, size, useFloating } from '@floating-ui/react';
import { type ReactNode, type RefObject, useLayoutEffect } from 'react';

/** Something that belongs to an element and lies over everything: below the element, or above it where there is no room. */
export function Beside({ of, children }: { of: RefObject<HTMLElement | null>; children: ReactNode }) {
  const { refs, floatingStyles } = useFloating({
    placement: 'bottom-start',
    strategy: 'fixed',
    whileElementsMounted: autoUpdate,
    middleware: [
      flip({ padding: 6 }),
      size({
        padding: 6,
        apply: ({ availableHeight, elements }) =>
          void (elements.floating.style.maxHeight = `${Math.max(80, availableHeight)}px`),
      }),
    ],
  });
  useLayoutEffect(() => refs.setReference(of.current), [refs, of]);
  return (
    <FloatingPortal>
      <div ref={refs.setFloating} style={floatingStyles} className="z-50 flex overflow-auto text-[14.5px]">
        {children}
      </div>
    </FloatingPortal>
  );
}
