'use client';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { useState } from 'react';
import { PART_STYLE } from './ListParts';

interface Props {
  part: string;
  label: string;
  text: string;
  value: string;
  most: number;
  onChange: (value: string) => void;
}

/** A part that is a text of one's own. */
export function TextPart({ part, label, text, value, most, onChange }: Props) {
  return (
    <Popover as="span">
      <PopoverButton data-brief-part={part} aria-label={`${label}: ${text}`} className={PART_STYLE}>
        {text}
      </PopoverButton>
      <PopoverPanel anchor={{ to: 'bottom start', gap: 6 }} className="panel p-3!" focus>
        {({ close }) => <Typed label={label} value={value} most={most} onChange={onChange} onClose={close} />}
      </PopoverPanel>
    </Popover>
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
