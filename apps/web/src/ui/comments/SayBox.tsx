'use client';
import { Paperclip, X } from 'lucide-react';
import { type KeyboardEvent, useId, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import { ask } from '@/ui/ask';
import { wrong } from '@/ui/Toasts';
import type { Anchor } from './useComments';

interface Person {
  account: string;
  name: string;
}

interface Props {
  planId: string;
  anchor: Anchor;
  /** What it answers. */
  answers?: string;
  people: readonly Person[];
  label: string;
  /** It is typed into at once. */
  begun?: boolean;
  onSaid: () => Promise<void>;
}

/** The name that is begun before the caret, behind an @. */
const begun = (text: string, caret: number): string | null =>
  /(?:^|\s)@([\p{L}\p{N} .'-]{0,30})$/u.exec(text.slice(0, caret))?.[1] ?? null;

/** Where something is said, with names behind @ and files beside it. */
export function SayBox({ planId, anchor, answers, people, label, begun: isBegun = false, onSaid }: Props) {
  const [text, setText] = useState('');
  const [files, setFiles] = useState<File[]>([]);
  const [wanted, setWanted] = useState<string | null>(null);
  const [at, setAt] = useState(0);
  const [busy, setBusy] = useState(false);
  const box = useRef<HTMLTextAreaElement>(null);
  const picker = useRef<HTMLInputElement>(null);
  const list = useId();
  const fitting =
    wanted === null ? [] : people.filter((p) => p.name.toLowerCase().includes(wanted.toLowerCase())).slice(0, 6);
  const look = (value: string) => {
    setText(value);
    setWanted(begun(value, box.current?.selectionStart ?? value.length));
    setAt(0);
  };
  const take = ({ name }: Person) => {
    const caret = box.current!.selectionStart;
    const from = caret - wanted!.length;
    // At once: the next key is on its way.
    flushSync(() => {
      setText(`${text.slice(0, from)}${name} ${text.slice(caret)}`);
      setWanted(null);
    });
    box.current!.focus();
    box.current!.setSelectionRange(from + name.length + 1, from + name.length + 1);
  };
  const say = async () => {
    if (text.trim() === '' || busy) return;
    setBusy(true);
    const named = people.filter((p) => text.includes(`@${p.name}`)).map((p) => p.account);
    try {
      const { id } = await ask<{ id: string }>(`/api/plans/${planId}/comments`, {
        method: 'POST',
        json: { text, ...anchor, answers: answers ?? null, named },
      });
      setText('');
      for (const file of files) {
        const form = new FormData();
        form.set('file', file);
        await ask(`/api/comments/${id}/files`, { method: 'POST', form });
      }
      setFiles([]);
    } catch (error) {
      wrong(error);
    }
    setBusy(false);
    await onSaid();
  };
  const onKey = (e: KeyboardEvent) => {
    // What is begun is not lost by a key; where nothing is, the key is for whoever opened this.
    if (isBegun && e.key === 'Escape' && text === '') return;
    e.stopPropagation();
    if (fitting.length > 0) {
      if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
        setAt((at + (e.key === 'ArrowDown' ? 1 : fitting.length - 1)) % fitting.length);
        return e.preventDefault();
      }
      if (e.key === 'Enter' || e.key === 'Tab') {
        take(fitting[at]!);
        return e.preventDefault();
      }
      if (e.key === 'Escape') return setWanted(null);
    }
    if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) {
      e.preventDefault();
      void say();
    }
  };
  return (
    <div className="relative">
      <textarea
        ref={box}
        autoFocus={isBegun}
        aria-label={label}
        placeholder={people.length > 0 ? `${label} (@ names somebody)` : label}
        rows={text === '' ? 1 : 3}
        maxLength={4000}
        value={text}
        onChange={(e) => look(e.target.value)}
        onKeyDown={onKey}
        onBlur={() => setWanted(null)}
        {...(fitting.length > 0 && {
          'aria-controls': list,
          'aria-activedescendant': `${list}-${at}`,
        })}
        className="block w-full resize-y rounded-md border border-line bg-paper px-2 py-1"
      />
      {fitting.length > 0 && (
        <div id={list} role="listbox" aria-label="Who is named" className="panel absolute top-full left-0 w-full">
          {fitting.map((p, k) => (
            <div
              key={p.account}
              id={`${list}-${k}`}
              role="option"
              tabIndex={-1}
              aria-selected={k === at}
              className={`choice ${k === at ? 'bg-wash' : ''}`}
              // The caret has to stay where it is.
              onMouseDown={(e) => {
                e.preventDefault();
                take(p);
              }}
            >
              {p.name}
            </div>
          ))}
        </div>
      )}
      {(text !== '' || files.length > 0) && (
        <div className="mt-1.5 flex flex-wrap items-center gap-2">
          <button
            type="button"
            className="action px-2.5 py-0.5 text-[14px]"
            disabled={busy || text.trim() === ''}
            title="Ctrl Enter"
            onClick={() => void say()}
          >
            Say it
          </button>
          <button
            type="button"
            className="rounded p-1 text-soft hover:bg-line"
            aria-label="Put files beside it"
            title="Put files beside it: pictures, PDF, documents, tables, up to 10 MB"
            onClick={() => picker.current?.click()}
          >
            <Paperclip size={15} />
          </button>
          <input
            ref={picker}
            type="file"
            multiple
            hidden
            onChange={(e) => {
              const more = [...(e.target.files ?? [])];
              setFiles((own) => [...own, ...more]);
              e.target.value = '';
            }}
          />
          {files.map((f) => (
            <span key={f.name} className="flex max-w-full items-center gap-1 text-[14px]">
              <span className="truncate">{f.name}</span>
              <button
                type="button"
                aria-label={`Leave ${f.name} out`}
                className="rounded text-soft hover:bg-line"
                onClick={() => setFiles(files.filter((x) => x !== f))}
              >
                <X size={13} />
              </button>
            </span>
          ))}
        </div>
      )}
    </div>
  );
}
