'use client';
import { type CodeField, type CodeFill, type CodeRule, type SelectField, selectFields } from '@clembo/core';
import { Plus, X } from 'lucide-react';
import { useCallback, useEffect, useId, useState } from 'react';
import { ConditionEditor } from '@/ui/sentence/ConditionEditor';
import { Pick } from '@/ui/Pick';
import { moved, Sortable, SortableItem } from '@/ui/Sortable';
import type { FillPreview } from '@/workers/answers/books';
import type { OpenRoom } from '@/workers/planRoom';

interface Props {
  open: OpenRoom;
  field: CodeField;
  busy: boolean;
  onRun: (field: CodeField) => void;
}

const WAYS: [string, string][] = [
  ['hand', 'typing, files and pastes'],
  ['characters', 'the first characters of another field'],
  ['rules', 'rules, in their order'],
];

const firstRule = (): CodeRule => ({
  code: '',
  when: { match: 'all', tests: [{ field: 'name', is: 'contains', values: [] }] },
});

/** How a field is filled: by hand, or by itself, with what that would do before it is done. */
export function FillPanel({ open, field, busy, onRun }: Props) {
  const [fill, setFill] = useState<CodeFill | null>(field.fill);
  const [preview, setPreview] = useState<FillPreview | null>(null);
  const fields = selectFields(open.head);
  const way = fill?.by ?? 'hand';
  const rulesReady = fill?.by !== 'rules' || (fill.rules.length > 0 && fill.rules.every((r) => r.code.trim() !== ''));

  useEffect(() => {
    let current = true;
    if (fill === null || !rulesReady) setPreview(null);
    else
      open.room.previewFill({ ...field, fill }).then(
        (shown) => current && setPreview(shown),
        () => current && setPreview(null),
      );
    return () => {
      current = false;
    };
  }, [open, field, fill, rulesReady]);

  const choose = (wanted: string) => {
    if (wanted === 'hand') setFill(null);
    else if (wanted === 'characters')
      setFill(field.fill?.by === 'characters' ? field.fill : { by: 'characters', of: 'ref', count: 2 });
    else setFill(field.fill?.by === 'rules' ? field.fill : { by: 'rules', rules: [firstRule()] });
  };
  const kept = JSON.stringify(fill) === JSON.stringify(field.fill);
  return (
    <section aria-labelledby="filled-by">
      <div className="flex items-center gap-2" id="filled-by">
        <Pick label="Filled by" value={way} options={WAYS} onChange={choose} />
      </div>
      {fill?.by === 'characters' && <CharactersFill fill={fill} fields={fields} own={field.id} onChange={setFill} />}
      {fill?.by === 'rules' && (
        <RulesFill open={open} field={field} rules={fill.rules} fields={fields} preview={preview} onChange={setFill} />
      )}
      {preview?.error && (
        <p role="alert" className="mt-2 text-madder">
          {preview.error}
        </p>
      )}
      {preview && !preview.error && <Outcome preview={preview} rules={fill?.by === 'rules'} />}
      {(fill !== null || field.fill !== null) && (
        <div className="mt-3 flex items-center gap-3">
          <button
            type="button"
            className="action shrink-0 py-1"
            disabled={
              busy || (fill !== null && (!preview || preview.error !== null)) || (kept && (preview?.changes ?? 0) === 0)
            }
            onClick={() => onRun({ ...field, fill })}
          >
            {fill === null ? 'Stop filling it by itself' : kept ? 'Run again' : 'Keep and run'}
          </button>
          {fill !== null && (
            <span className="text-[14px] text-soft">Kept with the plan, and run again at every refresh.</span>
          )}
        </div>
      )}
    </section>
  );
}

function CharactersFill({
  fill,
  fields,
  own,
  onChange,
}: {
  fill: Extract<CodeFill, { by: 'characters' }>;
  fields: SelectField[];
  own: string;
  onChange: (fill: CodeFill) => void;
}) {
  const [count, setCount] = useState(String(fill.count));
  return (
    <div className="mt-3 flex flex-wrap items-center gap-2">
      <label className="flex items-center gap-2">
        The first
        <input
          type="number"
          min={1}
          max={100}
          aria-label="How many characters"
          value={count}
          onChange={(e) => {
            setCount(e.target.value);
            const wanted = Number(e.target.value);
            if (Number.isInteger(wanted) && wanted >= 1 && wanted <= 100) onChange({ ...fill, count: wanted });
          }}
          className="w-16 rounded-md border border-line bg-paper px-2 py-0.5"
        />
      </label>
      <Pick
        label="characters of"
        value={fill.of}
        options={fields.filter((f) => f.id !== `code.${own}`).map((f) => [f.id, f.name])}
        onChange={(of) => onChange({ ...fill, of })}
      />
    </div>
  );
}

function RulesFill({
  open,
  field,
  rules,
  fields,
  preview,
  onChange,
}: {
  open: OpenRoom;
  field: CodeField;
  rules: CodeRule[];
  fields: SelectField[];
  preview: FillPreview | null;
  onChange: (fill: CodeFill) => void;
}) {
  const list = useId();
  const { room } = open;
  const textsOf = useCallback((id: string) => room.texts(id), [room]);
  const set = (next: CodeRule[]) => onChange({ by: 'rules', rules: next });
  return (
    <div className="mt-3">
      <Sortable ids={rules.map((_, k) => String(k))} onMove={(from, to) => set(moved(rules, from, to))}>
        <ol className="space-y-2">
          {rules.map((rule, k) => (
            <SortableItem
              key={k}
              id={String(k)}
              name={`rule ${k + 1}`}
              className="flex items-start gap-2 rounded-lg border border-line bg-paper px-2 py-2"
            >
              <div className="min-w-0 flex-1" data-rule={k + 1}>
                <div className="mb-1.5 flex items-center gap-2">
                  <span className="w-9 shrink-0 text-right text-[14px] text-soft">give</span>
                  <input
                    aria-label={`Code of rule ${k + 1}`}
                    list={list}
                    value={rule.code}
                    maxLength={300}
                    placeholder="code"
                    onChange={(e) => set(rules.map((r, j) => (j === k ? { ...r, code: e.target.value } : r)))}
                    className={`w-36 rounded-md border bg-paper px-2 py-0.5 font-semibold ${rule.code.trim() === '' ? 'border-marigold' : 'border-line'}`}
                  />
                  <span className="ml-auto text-[14px] whitespace-nowrap" data-testid={`caught ${k + 1}`}>
                    {caughtWords(preview?.caught[k])}
                  </span>
                  <button
                    type="button"
                    aria-label={`Remove rule ${k + 1}`}
                    className="rounded p-0.5 text-soft hover:bg-line"
                    onClick={() => set(rules.filter((_, j) => j !== k))}
                  >
                    <X size={15} />
                  </button>
                </div>
                <ConditionEditor
                  condition={rule.when}
                  fields={fields}
                  textsOf={textsOf}
                  onChange={(when) => set(rules.map((r, j) => (j === k ? { ...r, when } : r)))}
                />
              </div>
            </SortableItem>
          ))}
        </ol>
      </Sortable>
      <datalist id={list}>
        {field.values.map((v) => (
          <option key={v.code} value={v.code}>
            {v.title}
          </option>
        ))}
      </datalist>
      <button type="button" className="quiet mt-2 py-0.5" onClick={() => set([...rules, firstRule()])}>
        <Plus size={14} aria-hidden /> Add a rule
      </button>
    </div>
  );
}

function caughtWords(caught: FillPreview['caught'][number] | undefined): string {
  if (!caught) return '';
  const { decides, catches } = caught;
  return decides === catches
    ? `${decides} ${decides === 1 ? 'activity' : 'activities'}`
    : `${decides}, of ${catches} it would catch`;
}

/** What it comes to: the codes, and what nothing catches. */
function Outcome({ preview, rules }: { preview: FillPreview; rules: boolean }) {
  const { none, examples, changes, codes } = preview;
  return (
    <div className="mt-3 space-y-1 text-[14.5px]" role="status" data-testid="fill-outcome">
      {!rules && codes.length > 0 && (
        <p className="flex max-h-24 flex-wrap gap-1.5 overflow-auto">
          {codes.map((c) => (
            <span key={c.code} className="rounded-full bg-wash px-2.5">
              {c.code} <span className="text-soft">{c.count}</span>
            </span>
          ))}
        </p>
      )}
      <p>
        {changes === 0
          ? 'Nothing would change.'
          : `${changes} ${changes === 1 ? 'row gets' : 'rows get'} another code (groups count as rows).`}{' '}
        {none === 0 ? (
          'Every activity is caught.'
        ) : (
          <>
            <span className="text-madder">
              {none} {none === 1 ? 'activity is' : 'activities are'} caught by nothing
            </span>
            <span className="text-soft">
              {examples.length > 0 &&
                `: ${examples.map((e) => e.name || e.ref).join(', ')}${none > examples.length ? ' …' : ''}`}
            </span>
          </>
        )}
      </p>
    </div>
  );
}
