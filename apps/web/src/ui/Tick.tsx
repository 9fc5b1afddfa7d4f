import type { ReactNode } from 'react';

/** A yes-or-no choice with its words behind it. */
export const Tick = ({
  checked,
  onFlip,
  title,
  className = '',
  children,
}: {
  checked: boolean;
  onFlip: () => void;
  title?: string;
  className?: string;
  children: ReactNode;
}) => (
  <label className={`flex items-center gap-1.5 ${className}`} title={title}>
    <input type="checkbox" checked={checked} onChange={onFlip} className="accent-[#0F6E6E]" />
    {children}
  </label>
);
