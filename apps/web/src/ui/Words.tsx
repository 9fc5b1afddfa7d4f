'use client';
import { TextField } from './TextField';

interface Props {
  label: string;
  value: string;
  placeholder?: string;
  className?: string;
  /** They cannot be changed here. */
  fixed?: boolean;
  onSay: (text: string) => void;
}

/** Words that are changed where they stand: Enter keeps them, Escape leaves them as they were. */
export function Words({ label, value, placeholder, className = '', fixed = false, onSay }: Props) {
  if (fixed) return value === '' ? null : <p className={className}>{value}</p>;
  return (
    <TextField
      aria-label={label}
      value={value}
      placeholder={placeholder}
      className={`field-sizing-content -ml-1 max-w-full min-w-24 rounded border border-transparent bg-transparent px-1 hover:border-line focus:border-line focus:bg-paper ${className}`}
      onKeep={onSay}
    />
  );
}
