'use client';
import {
  codeFieldId,
  type CodeField,
  type CodeValue,
  type Command,
  freeFieldId,
  makeField,
  makeValue,
} from '@clembo/core';
import { useEffect, useState } from 'react';
import { PlanTurns } from '@/ui/plan/PlanTurns';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import { usePlanSearch } from '@/ui/plan/usePlanSearch';
import { ask } from '@/ui/ask';
import { Frame, type FramePlan } from '@/ui/Frame';
import { toast, wrong } from '@/ui/Toasts';
import { Words } from '@/ui/Words';
import type { Book } from '@/workers/answers/books';
import { type OpenRoom, usePlanRoom } from '@/workers/planRoom';
import { GatherTabs } from '../plan/GatherTabs';
import { BookValues } from './BookValues';
import { FillPanel } from './FillPanel';
import { KeptBooks } from './KeptBooks';
import { PasteCodes } from './PasteCodes';

/** The code fields of a plan with their books: what sorts activities, and how it looks on every page. */
export function BooksDesk({ plan, version }: { plan: FramePlan; version: number }) {
  const { open, error } = usePlanRoom(plan.id, version);
  const [books, setBooks] = useState<Book[] | null>(null);
  const search = usePlanSearch(plan.id, open);
  useEffect(() => {
    let current = true;
    open?.room.books().then((list) => current && setBooks(list), wrong);
    return () => {
      current = false;
    };
  }, [open]);
  return (
    <Frame stage="Gather" plan={plan} search={search} controls={<PlanTurns planId={plan.id} open={open} />}>
      <div className="h-full overflow-auto">
        <div className="mx-auto max-w-[1240px] px-8 pt-6 pb-10">
          <GatherTabs planId={plan.id} current="Code books" />
          {error ? (
            <p role="alert" className="mt-6 text-madder">
              {error}
            </p>
          ) : open && books ? (
            <Books planId={plan.id} open={open} books={books} />
          ) : (
            <p role="status" className="mt-6 text-soft">
              Opening the plan …
            </p>
          )}
        </div>
      </div>
    </Frame>
  );
}

function Books({ planId, open, books }: { planId: string; open: OpenRoom; books: Book[] }) {
  const { busy, change } = usePlanChange(planId);
  const [chosen, setChosen] = useState<string | null>(null);
  const [name, setName] = useState('');
  const book = books.find((b) => b.field.id === chosen) ?? books[0] ?? null;
  const add = async (field: CodeField) => {
    const named = { ...field, id: freeFieldId(open.head, field.name) };
    if (await change({ do: 'setCodeField', field: named }, `Add the code field ${field.name}`)) setChosen(named.id);
  };
  return (
    <div className="mt-6 grid grid-cols-[200px_minmax(0,1fr)] gap-8">
      <nav aria-label="Code fields">
        <ul className="space-y-0.5">
          {books.map(({ field, outside }) => (
            <li key={field.id}>
              <button
                type="button"
                aria-current={field.id === book?.field.id ? 'true' : undefined}
                onClick={() => setChosen(field.id)}
                className={`flex w-full items-baseline gap-2 rounded-md px-3 py-1.5 text-left ${field.id === book?.field.id ? 'bg-ink text-paper' : 'hover:bg-wash'}`}
              >
                <span className="min-w-0 truncate font-semibold">{field.name}</span>
                <span className={`ml-auto shrink-0 text-[14px] ${field.id === book?.field.id ? '' : 'text-soft'}`}>
                  {field.values.length}
                  {outside.length > 0 && ` + ${outside.length}`}
                </span>
              </button>
            </li>
          ))}
        </ul>
        <form
          className="mt-4 flex gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            if (name.trim() === '') return;
            void add(makeField({ id: 'new', name: name.trim() }));
            setName('');
          }}
        >
          <input
            aria-label="New code field"
            placeholder="New field"
            value={name}
            maxLength={200}
            onChange={(e) => setName(e.target.value)}
            className="min-w-0 flex-1 rounded-md border border-line bg-paper px-2.5 py-1"
          />
          <button type="submit" className="quiet py-1" disabled={name.trim() === '' || busy}>
            Add
          </button>
        </form>
        <KeptBooks onTake={(field) => void add(field)} />
      </nav>
      {book ? (
        <BookView key={book.field.id} planId={planId} open={open} book={book} />
      ) : (
        <p className="max-w-md text-soft">
          This plan has no code fields yet. A code field sorts activities (phase, contractor, area); its book says how
          each value is called and looks on every page. Add one at the left.
        </p>
      )}
    </div>
  );
}

function BookView({ planId, open, book }: { planId: string; open: OpenRoom; book: Book }) {
  const { busy, change } = usePlanChange(planId);
  const { field } = book;
  const required = open.head.required.includes(codeFieldId(field.id));
  const set = (next: CodeField): Command => ({ do: 'setCodeField', field: next });
  const setValues = (values: CodeValue[], words: string) => void change(set({ ...field, values }), words);
  const recode = async (from: string, to: string) => {
    const refs = await open.room.refsWithCode(field.id, from);
    const values = field.values.map((v) => ({
      ...v,
      ...(v.code === from && { code: to, title: v.title === from ? to : v.title }),
      ...(v.parent === from && { parent: to }),
    }));
    const commands: Command[] = [set({ ...field, values })];
    if (refs.length > 0) commands.push({ do: 'recode', field: field.id, codes: refs.map((ref) => [ref, to]) });
    await change({ do: 'all', commands }, `Call the code ${from} ${to}`);
  };
  const take = (codes: [string, string][]) => {
    const known = new Set(field.values.map((v) => v.code));
    const fresh = [...new Set(codes.map(([, code]) => code))].filter((code) => code !== '' && !known.has(code));
    const commands: Command[] = [];
    if (fresh.length > 0)
      commands.push(set({ ...field, values: [...field.values, ...fresh.map((code) => makeValue({ code }))] }));
    commands.push({ do: 'recode', field: field.id, codes });
    return change({ do: 'all', commands }, `Code ${codes.length} activities by ${field.name}, as pasted`);
  };
  const keep = () =>
    ask('/api/books', { method: 'POST', json: { name: field.name, field } }).then(
      () => toast(`“${field.name}” is kept for other plans.`),
      wrong,
    );
  return (
    <div className="min-w-0">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <Words
          label="Name of the field"
          value={field.name}
          className="font-serif text-[24px] font-semibold"
          onSay={(name) => name !== '' && void change(set({ ...field, name }), `Rename ${field.name} to ${name}`)}
        />
        <label className="flex items-center gap-2 text-[14.5px]">
          <input
            type="checkbox"
            className="size-4 accent-kelp"
            checked={required}
            onChange={(e) =>
              void change(
                {
                  do: 'setPlan',
                  settings: {
                    required: e.target.checked
                      ? [...open.head.required, codeFieldId(field.id)]
                      : open.head.required.filter((id) => id !== codeFieldId(field.id)),
                  },
                },
                `${e.target.checked ? 'Require' : 'Do not require'} ${field.name}`,
              )
            }
          />
          every activity must have one
        </label>
        <span className="ml-auto flex gap-2">
          <button type="button" className="quiet py-0.5" onClick={() => void keep()}>
            Keep for other plans
          </button>
          <button
            type="button"
            className="quiet py-0.5"
            disabled={busy}
            onClick={() => void change({ do: 'removeCodeField', id: field.id }, `Remove the code field ${field.name}`)}
          >
            Remove
          </button>
        </span>
      </div>
      <div className="mt-4 grid grid-cols-1 gap-8 xl:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
        <BookValues book={book} onValues={setValues} onRecode={(from, to) => void recode(from, to)} />
        <div className="min-w-0 space-y-7">
          <FillPanel
            key={JSON.stringify(field.fill)}
            open={open}
            field={field}
            busy={busy}
            onRun={(next) => void change((room) => room.fillCommand(next), `Fill ${field.name}`)}
          />
          <PasteCodes open={open} field={field} busy={busy} onTake={take} />
        </div>
      </div>
    </div>
  );
}
