'use client';
import { type ComponentProps, type KeyboardEvent, useState } from 'react';

interface Props extends Omit<ComponentProps<'input'>, 'value' | 'defaultValue' | 'onChange' | 'onBlur' | 'onKeyDown'> {
  value: string;
  /** The text is kept, trimmed; false where it cannot be used, and what was there stands again. */
  onKeep: (text: string) => unknown;
  /** What Enter does with the text; without it, Enter keeps the text and the field keeps the focus. */
  onEnter?: (text: string) => void;
}

/** A text and whether it was kept, while that is not yet what is there. */
interface Draft {
  text: string;
  /** What was there when it was kept; null while it is typed. */
  over: string | null;
}

/** A line of text that is kept when it is left or with Enter, and left as it was with Escape. Keys never lose their field. */
export function TextField({ value, onKeep, onEnter, ...rest }: Props) {
  const [draft, setDraft] = useState<Draft | null>(null);
  const shown = draft && (draft.over === null || draft.over === value) ? draft.text : value;
  const keep = (text: string): void => {
    if (draft === null || draft.over !== null) return;
    const said = text.trim();
    setDraft(said !== value && onKeep(said) !== false ? { text: said, over: value } : null);
  };
  const onKey = (e: KeyboardEvent<HTMLInputElement>): void => {
    if (e.nativeEvent.isComposing) return;
    if (e.key === 'Enter') {
      e.preventDefault();
      if (onEnter) {
        setDraft(null);
        onEnter(e.currentTarget.value.trim());
      } else keep(e.currentTarget.value);
    } else if (e.key === 'Escape' && draft?.over === null) {
      e.stopPropagation();
      setDraft(null);
    } else if (e.key === 'Escape') e.currentTarget.blur();
  };
  return (
    <input
      {...rest}
      value={shown}
      onChange={(e) => setDraft({ text: e.target.value, over: null })}
      onBlur={(e) => keep(e.target.value)}
      onKeyDown={onKey}
    />
  );
}
