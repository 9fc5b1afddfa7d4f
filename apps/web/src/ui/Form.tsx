'use client';
import { type FormEvent, type InputHTMLAttributes, type ReactNode, useId, useState } from 'react';

/**
 * A few fields and what is done with them. What goes wrong stands below the fields and is read out; what was typed
 * stays.
 */
export function Form({
  action,
  onSubmit,
  children,
  beside,
}: {
  /** What the button says. */
  action: string;
  onSubmit: (values: Record<string, string>) => Promise<void>;
  children: ReactNode;
  /** What stands beside the button. */
  beside?: ReactNode;
}) {
  const [error, setError] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const submit = async (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const values = Object.fromEntries([...new FormData(e.currentTarget)].map(([k, v]) => [k, String(v)]));
    setBusy(true);
    setError(null);
    try {
      await onSubmit(values);
    } catch (refused) {
      setError((refused as Error).message);
    }
    setBusy(false);
  };
  return (
    <form onSubmit={submit} className="mt-5 flex flex-col gap-3.5">
      {children}
      {error && (
        <p role="alert" className="text-madder">
          {error}
        </p>
      )}
      <div className="mt-1 flex items-center gap-4">
        <button type="submit" className="action" disabled={busy}>
          {action}
        </button>
        {beside}
      </div>
    </form>
  );
}

/** A labelled field of a form. */
export function TextField({
  label,
  note,
  ...input
}: { label: string; note?: string } & InputHTMLAttributes<HTMLInputElement>) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="block text-[14px] font-semibold">
        {label}
      </label>
      <input
        id={id}
        required
        className="mt-0.5 w-full rounded-md border border-line bg-paper px-2.5 py-1.5 read-only:bg-wash"
        {...(note && { 'aria-describedby': `${id}-note` })}
        {...input}
      />
      {note && (
        <p id={`${id}-note`} className="mt-0.5 text-[14px] text-soft">
          {note}
        </p>
      )}
    </div>
  );
}
