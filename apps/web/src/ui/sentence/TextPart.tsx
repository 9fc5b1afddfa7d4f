'use client';
import { useState } from 'react';
import { PartPanel, type SaidPart } from './PartPanel';

interface Props extends SaidPart {
  value: string;
  most: number;
  onChange: (value: string) => void;
}

/** A part that is a text of one's own. */
export function TextPart({ part, label, text, value, most, onChange }: Props) {
  return (
    <PartPanel part={part} label={label} text={text}>
      {(close) => <Typed label={label} value={value} most={most} onChange={onChange} onClose={close} />}
    </PartPanel>
  );
}

function Typed({
  label,
  value,
  most,
  onChange,
  onClose,
}: Pick<Props, 'label' | 'value' | 'most' | 'onChange'> & { onClose: () => void }) {
  const [typed, setTyped] = useState(value);
  const keep = () => {
    if (typed.trim() !== value) onChange(typed.trim());
    onClose();
  };
  return (
    <form
      className="flex w-96 flex-col gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        keep();
      }}
    >
      <textarea
        aria-label={label}
        rows={3}
        maxLength={most}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        onKeyDown={(e) => {
          if (e.key !== 'Enter' || e.shiftKey) return;
          e.preventDefault();
          keep();
        }}
        className="rounded border border-line bg-paper px-2 py-1 text-[15px]"
      />
      <div className="flex items-center justify-end gap-2">
        <button
          type="button"
          className="quiet py-1"
          onClick={() => {
            onChange('');
            onClose();
          }}
        >
          Take it away
        </button>
        <button type="submit" className="action py-1">
          Write it
        </button>
      </div>
    </form>
  );
}
