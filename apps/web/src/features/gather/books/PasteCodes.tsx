'use client';
import type { CodeField, PastedCodes } from '@clembo/core';
import { useEffect, useState } from 'react';
import { Pick } from '@/ui/Pick';
import { wrong } from '@/ui/Toasts';
import type { OpenRoom } from '@/workers/planRoom';
import { tableFromHtml } from '../tableFromHtml';

interface Props {
  open: OpenRoom;
  field: CodeField;
  busy: boolean;
  onTake: (codes: [ref: string, code: string][]) => Promise<boolean>;
}

const letter = (column: number): string => String.fromCharCode(65 + (column % 26));

/** Codes pasted beside references or names, in any order. */
export function PasteCodes({ open, field, busy, onTake }: Props) {
  const [text, setText] = useState('');
  const [column, setColumn] = useState<number | null>(null);
  const [pasted, setPasted] = useState<PastedCodes | null>(null);
  useEffect(() => {
    let current = true;
    const table = text
      .split(/\r?\n/)
      .filter((line) => line.trim() !== '')
      .map((line) => line.split('\t'));
    if (table.length === 0) setPasted(null);
    else open.room.pastedCodes(table, column).then((found) => current && setPasted(found), wrong);
    return () => {
      current = false;
    };
  }, [open, text, column]);
  return (
    <section aria-labelledby="paste-codes">
      <h3 id="paste-codes" className="font-semibold">
        Or paste a column
      </h3>
      <p className="text-[14px] text-soft">References or names beside their codes, in any order of rows and columns.</p>
      <textarea
        aria-label="Pasted codes"
        rows={4}
        spellCheck={false}
        value={text}
        placeholder={`A100\t${field.values[0]?.code ?? 'North'}\nA110\t${field.values[1]?.code ?? 'South'}`}
        onChange={(e) => {
          setText(e.target.value);
          setColumn(null);
        }}
        onPaste={(e) => {
          const table = tableFromHtml(e.clipboardData.getData('text/html'));
          if (table === null) return;
          e.preventDefault();
          setText(table);
          setColumn(null);
        }}
        className="mt-1.5 w-full rounded-lg border border-line bg-paper p-2 font-narrow text-[14px] whitespace-pre"
      />
      {pasted && (
        <div className="mt-1 space-y-1 text-[14.5px]" data-testid="paste-outcome">
          {pasted.key === null ? (
            <p role="alert" className="text-madder">
              No column of it holds references or names of this plan. Paste two columns, one of which names activities.
            </p>
          ) : (
            <>
              <p>
                {pasted.codes.length} {pasted.codes.length === 1 ? 'activity is' : 'activities are'} found by{' '}
                {pasted.key.by === 'ref' ? 'reference' : 'name'}.
              </p>
              {pasted.heading && (
                <p className="text-soft">The first row is taken for headings: {pasted.heading.join(', ')}.</p>
              )}
              {pasted.columns > 2 && (
                <Pick
                  label="The codes stand in column"
                  value={String(pasted.column)}
                  options={Array.from({ length: pasted.columns }, (_, c) => c)
                    .filter((c) => c !== pasted.key?.column)
                    .map((c) => [String(c), letter(c)])}
                  onChange={(c) => setColumn(Number(c))}
                />
              )}
              <Left title="Not in the plan" rows={pasted.unknown.map((u) => u.key)} />
              <Left title="The name of several activities" rows={pasted.ambiguous.map((u) => u.key)} />
              <Left
                title="Said twice, differently"
                rows={pasted.contradicted.map((u) => `${u.key}: ${u.first}, then ${u.second}`)}
              />
            </>
          )}
          <button
            type="button"
            className="action mt-1 py-1"
            disabled={busy || pasted.codes.length === 0}
            onClick={() =>
              void onTake(pasted.codes).then((done) => {
                if (done) setText('');
              })
            }
          >
            Give {pasted.codes.length} codes
          </button>
        </div>
      )}
    </section>
  );
}

function Left({ title, rows }: { title: string; rows: string[] }) {
  if (rows.length === 0) return null;
  return (
    <p className="text-madder">
      {title}: {rows.slice(0, 8).join(', ')}
      {rows.length > 8 && ` and ${rows.length - 8} more`}
    </p>
  );
}
