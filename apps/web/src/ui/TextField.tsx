'use client';
import { type ComponentProps, type KeyboardEvent, useEffect, useState } from 'react';

interface Props extends Omit<ComponentProps<'input'>, 'value' | 'defaultValue' | 'onChange' | 'onBlur' | 'onKeyDown'> {
  value: string;
  /** The text is kept, trimmed; false where it cannot be used, and the value stands again. */
  onKeep: (text: string) => unknown;
}

/** How long a text that was kept stands before the value follows it, in ms; after that the value stands again. */
const PATIENCE = 2000;

/** A text that is being typed, or was kept while the value is still another. */
interface Draft {
  text: string;
  /** The value when the text was kept; null while it is typed. */
  over: string | null;
}

/** A line of text that is kept when it is left or with Enter, and left as it was with Escape. Enter does not take the focus away. */
export function TextField({ value, onKeep, ...rest }: Props) {
  const [draft, setDraft] = useState<Draft | null>(null);
  const isKept = draft !== null && draft.over !== null;
  // The value has followed, or somebody else's has come.
  if (isKept && draft.over !== value) setDraft(null);
  useEffect(() => {
    if (!isKept) return;
    const timer = setTimeout(() => setDraft(null), PATIENCE);
    return () => clearTimeout(timer);
  }, [isKept, draft]);
  const keep = (text: string): void => {
    if (draft === null || isKept) return;
    const said = text.trim();
    setDraft(said !== value && onKeep(said) !== false ? { text: said, over: value } : null);
  };
  const onKey = (e: KeyboardEvent<HTMLInputElement>): void => {
    if (e.nativeEvent.isComposing) return;
    if (e.key === 'Enter') {
      e.preventDefault();
      keep(e.currentTarget.value);
    } else if (e.key === 'Escape' && draft !== null && !isKept) {
      e.stopPropagation();
      setDraft(null);
    } else if (e.key === 'Escape') e.currentTarget.blur();
  };
  return (
    <input
      {...rest}
      value={draft?.text ?? value}
      onChange={(e) => setDraft({ text: e.target.value, over: null })}
      onBlur={(e) => keep(e.target.value)}
      onKeyDown={onKey}
    />
  );
}
