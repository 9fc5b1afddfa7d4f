'use client';
import {
  type Condition,
  fieldType,
  isTest,
  type Operator,
  operatorsFor,
  type SelectField,
  type Test,
} from '@clembo/core';
import { Plus, X } from 'lucide-react';
import { useEffect, useId, useState } from 'react';
import { Pick } from '../Pick';

interface Props {
  condition: Condition;
  fields: SelectField[];
  /** Texts that a field holds, for completing what is typed. */
  textsOf: (field: string) => Promise<string[]>;
  onChange: (condition: Condition) => void;
}

/** What is asked first: what something is called. */
export const firstTest = (fields: readonly SelectField[]): Test => ({
  field: fields.find((f) => f.name === 'name')?.id ?? fields[0]!.id,
  is: 'contains',
  values: [],
});

/** Tests, one a line, of which all or any must hold. Conditions within conditions are kept as they are. */
export function ConditionEditor({ condition, fields, textsOf, onChange }: Props) {
  const { match, tests } = condition;
  const set = (k: number, test: Test) => onChange({ match, tests: tests.map((t, j) => (j === k ? test : t)) });
  return (
    <div className="space-y-1.5">
      {tests.map((test, k) =>
        isTest(test) ? (
          <div key={k} className="flex flex-wrap items-center gap-1.5">
            <span className="w-9 shrink-0 text-right text-[14px] text-soft">
              {k === 0 ? (
                'if'
              ) : k === 1 ? (
                <button
                  type="button"
                  className="border-b border-kelp/50 font-semibold text-kelp"
                  aria-label={match === 'all' ? 'All must hold' : 'Any must hold'}
                  title="All of them, or any of them"
                  onClick={() => onChange({ match: match === 'all' ? 'any' : 'all', tests })}
                >
                  {match === 'all' ? 'and' : 'or'}
                </button>
              ) : match === 'all' ? (
                'and'
              ) : (
                'or'
              )}
            </span>
            <TestLine first={k === 0} test={test} fields={fields} textsOf={textsOf} onChange={(t) => set(k, t)} />
            {tests.length > 1 && (
              <button
                type="button"
                aria-label="Remove this test"
                className="rounded p-0.5 text-soft hover:bg-line"
                onClick={() => onChange({ match, tests: tests.filter((_, j) => j !== k) })}
              >
                <X size={14} />
              </button>
            )}
          </div>
        ) : null,
      )}
      <button
        type="button"
        className="ml-[42px] flex items-center gap-1 text-[14px] text-kelp hover:underline"
        onClick={() => onChange({ match, tests: [...tests, firstTest(fields)] })}
      >
        <Plus size={13} aria-hidden /> one more test
      </button>
    </div>
  );
}

function TestLine({
  first,
  test,
  fields,
  textsOf,
  onChange,
}: {
  /** What is typed goes there at once. */
  first: boolean;
  test: Test;
  fields: SelectField[];
  textsOf: Props['textsOf'];
  onChange: (test: Test) => void;
}) {
  const type = fieldType(test.field);
  const operators = operatorsFor(type);
  const list = useId();
  const [texts, setTexts] = useState<string[]>([]);
  // As it is typed: a blank at the end is not yet the end.
  const [text, setText] = useState(test.values.join(' | '));
  useEffect(() => {
    let current = true;
    if (type === 'text')
      textsOf(test.field).then(
        (found) => current && setTexts(found),
        () => {},
      );
    return () => {
      current = false;
    };
  }, [type, test.field, textsOf]);
  const plain = test.is === 'empty' || test.is === 'filled';
  const changeField = (field: string) => {
    const known = operatorsFor(fieldType(field)).some(([is]) => is === test.is);
    const same = fieldType(field) === type;
    if (!same) setText('');
    onChange({ field, is: known ? test.is : 'is', values: same ? test.values : [] });
  };
  return (
    <>
      <Pick
        label=""
        value={test.field}
        options={fields.map((f) => [f.id, f.name])}
        onChange={changeField}
        shown={(title) => title}
      />
      <Pick label="" value={test.is} options={operators} onChange={(is) => onChange({ ...test, is: is as Operator })} />
      {!plain && (
        <>
          <input
            type={type === 'day' ? 'date' : 'text'}
            inputMode={type === 'number' ? 'decimal' : undefined}
            // biome-ignore lint: it was asked for by a click or a key
            autoFocus={first}
            aria-label="What it is compared with"
            list={type === 'text' ? list : undefined}
            value={text}
            placeholder={type === 'text' ? 'text, or several with |' : ''}
            onChange={(e) => {
              setText(e.target.value);
              onChange({ ...test, values: valuesIn(e.target.value, type) });
            }}
            className="w-44 rounded-md border border-line bg-paper px-2 py-0.5"
          />
          {type === 'text' && (
            <datalist id={list}>
              {texts.map((t) => (
                <option key={t} value={t} />
              ))}
            </datalist>
          )}
        </>
      )}
    </>
  );
}

/** What was typed as values; a text may be several, with a bar between them. */
function valuesIn(text: string, type: string): string[] {
  if (text === '') return [];
  return type === 'text' ? text.split('|').map((v) => v.trim()) : [text];
}
