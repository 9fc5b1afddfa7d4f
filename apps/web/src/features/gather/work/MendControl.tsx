'use client';
import type { CodeField, Mend } from '@clembo/core';
import { useId, useState } from 'react';
import { DayField } from '@/ui/DayField';
import type { OpenRoom } from '@/workers/planRoom';

interface Props {
  mend: Mend;
  open: OpenRoom;
  /** The book whose codes are asked for. */
  book: CodeField | null;
  busy: boolean;
  /** How many it is done to, where it is done to all. */
  all?: number;
  onDo: (answer: string) => void;
}

const FIELD = 'rounded-md border border-line bg-paper px-2 py-0.5';

/** One way to mend, with what it asks. */
export function MendControl({ mend, open, book, busy, all, onDo }: Props) {
  const [answer, setAnswer] = useState('');
  const [to, setTo] = useState('');
  const toAll = all === undefined ? '' : ` of all ${all}`;
  if (mend.asks === null)
    return (
      <button type="button" className="quiet py-0.5" disabled={busy} onClick={() => onDo('')}>
        {mend.words}
        {toAll && <span className="text-soft">, all {all}</span>}
      </button>
    );
  if (mend.asks === 'one of these') return null;
  const label = mend.words.charAt(0).toUpperCase() + mend.words.slice(1);
  return (
    <form
      className="flex items-center gap-1.5"
      onSubmit={(e) => {
        e.preventDefault();
        onDo(mend.asks === 'span' && to !== '' ? `${answer}/${to}` : answer);
      }}
    >
      <span className="text-[14.5px] text-soft">
        {label}
        {toAll}
      </span>
      {mend.asks === 'day' ? (
        <DayField label={label} value={answer} onChange={setAnswer} />
      ) : mend.asks === 'span' ? (
        <>
          <DayField label={`${label} from`} value={answer} onChange={setAnswer} />
          <span className="text-soft">to</span>
          <DayField label={`${label} to`} value={to} onChange={setTo} />
        </>
      ) : mend.asks === 'activity' ? (
        <ActivityField label={label} open={open} value={answer} onChange={setAnswer} />
      ) : (
        <TextField label={label} book={book} number={mend.asks === 'number'} value={answer} onChange={setAnswer} />
      )}
      <button type="submit" className="quiet py-0.5" disabled={busy || answer.trim() === ''}>
        {mend.asks === 'activity' ? 'Link' : 'Set'}
      </button>
    </form>
  );
}

function TextField({
  label,
  book,
  number,
  value,
  onChange,
}: {
  label: string;
  book: CodeField | null;
  number: boolean;
  value: string;
  onChange: (value: string) => void;
}) {
  const list = useId();
  return (
    <>
      <input
        aria-label={label}
        inputMode={number ? 'decimal' : undefined}
        list={book ? list : undefined}
        value={value}
        maxLength={300}
        onChange={(e) => onChange(e.target.value)}
        className={`${FIELD} ${number ? 'w-20' : 'w-44'}`}
      />
      {book && (
        <datalist id={list}>
          {book.values.map((v) => (
            <option key={v.code} value={v.code}>
              {v.title}
            </option>
          ))}
        </datalist>
      )}
    </>
  );
}

/** An activity by its reference; what is typed may be a part of its name too. */
function ActivityField({
  label,
  open,
  value,
  onChange,
}: {
  label: string;
  open: OpenRoom;
  value: string;
  onChange: (value: string) => void;
}) {
  const list = useId();
  const [found, setFound] = useState<{ ref: string; name: string }[]>([]);
  return (
    <>
      <input
        aria-label={label}
        list={list}
        value={value}
        placeholder="reference or name"
        onChange={(e) => {
          onChange(e.target.value);
          void open.room.find(e.target.value, 12).then(setFound, () => {});
        }}
        className={`${FIELD} w-44`}
      />
      <datalist id={list}>
        {found.map((a) => (
          <option key={a.ref} value={a.ref}>
            {a.name}
          </option>
        ))}
      </datalist>
    </>
  );
}
