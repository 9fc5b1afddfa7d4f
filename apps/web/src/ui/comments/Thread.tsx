'use client';
import { Check, Paperclip, RotateCcw, Trash2 } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { ask } from '@/ui/ask';
import { wrong } from '@/ui/Toasts';
import { SayBox } from './SayBox';
import type { Comments, Said } from './useComments';

const whenSaid = (iso: string): string =>
  new Date(iso).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });

/** What somebody said, with its answers, and a way to answer and to say that it is done. */
export function Thread({
  planId,
  said,
  answers,
  found,
  again,
  title,
}: {
  planId: string;
  said: Said;
  answers: readonly Said[];
  found: Comments;
  again: () => Promise<void>;
  /** What it is about, where that is not clear. */
  title?: ReactNode;
}) {
  const [answering, setAnswering] = useState(false);
  const { people, me, maySay, isOwner } = found;
  const send = (id: string, method: string, json?: object) =>
    ask(`/api/comments/${id}`, { method, ...(json && { json }) }).then(again, wrong);
  const isDone = said.doneAt !== null;
  const mayDrop = (c: Said) => maySay && (isOwner || c.account === me);
  return (
    <li className={`py-2.5 ${isDone ? 'text-soft' : ''}`} data-comment={said.id}>
      {title && <p className="mb-0.5 text-[14px]">{title}</p>}
      {[said, ...answers].map((c, k) => (
        <div key={c.id} className={k > 0 ? 'mt-1.5 border-l-2 border-line pl-2.5' : ''}>
          <p className="text-[13.5px] text-soft">
            <b className="font-semibold text-ink">{c.person ?? 'At this machine'}</b> {whenSaid(c.createdAt)}
            {c.changedAt && ', changed'}
            {mayDrop(c) && (
              <button
                type="button"
                aria-label="Take it away"
                title="Take it away"
                className="ml-1 rounded p-0.5 align-[-2px] hover:bg-line"
                onClick={() => void send(c.id, 'DELETE')}
              >
                <Trash2 size={12} />
              </button>
            )}
          </p>
          <p className="break-words whitespace-pre-wrap">{withNames(c.text, people)}</p>
          {c.files.map((f) => (
            <a
              key={f.no}
              href={`/api/comments/${c.id}/files/${f.no}`}
              download
              className="flex items-center gap-1 text-[14px] text-kelp hover:underline"
            >
              <Paperclip size={13} aria-hidden /> <span className="truncate">{f.name}</span>
              <span className="shrink-0 text-soft">{Math.max(1, Math.round(f.size / 1024))} KB</span>
            </a>
          ))}
        </div>
      ))}
      {isDone && <p className="mt-1 text-[13.5px]">Done{said.doneBy && `, says ${said.doneBy}`}</p>}
      {maySay && (
        <div className="mt-1 flex items-center gap-3 text-[14px]">
          {!isDone && !answering && (
            <button type="button" className="text-kelp hover:underline" onClick={() => setAnswering(true)}>
              Answer
            </button>
          )}
          <button
            type="button"
            className="flex items-center gap-1 text-kelp hover:underline"
            onClick={() => void send(said.id, 'PATCH', { done: !isDone })}
          >
            {isDone ? <RotateCcw size={12} aria-hidden /> : <Check size={13} aria-hidden />}
            {isDone ? 'Open again' : 'Done'}
          </button>
        </div>
      )}
      {answering && (
        <div className="mt-1.5">
          <SayBox
            planId={planId}
            anchor={{ ref: said.ref, exhibitId: said.exhibitId }}
            answers={said.id}
            people={people}
            label="Your answer"
            onSaid={async () => {
              setAnswering(false);
              await again();
            }}
          />
        </div>
      )}
    </li>
  );
}

/** A text with the names of people in it told apart. */
function withNames(text: string, people: Comments['people']): ReactNode {
  const names = people.map((p) => `@${p.name}`).sort((a, b) => b.length - a.length);
  const parts: ReactNode[] = [];
  let rest = text;
  while (rest !== '') {
    const at = names.map((n) => [rest.indexOf(n), n] as const).filter(([k]) => k >= 0);
    const [next] = at.sort((a, b) => a[0] - b[0]);
    if (!next) break;
    parts.push(
      rest.slice(0, next[0]),
      <b key={parts.length} className="font-semibold text-kelp-deep">
        {next[1]}
      </b>,
    );
    rest = rest.slice(next[0] + next[1].length);
  }
  return [...parts, rest];
}
