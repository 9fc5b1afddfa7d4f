'use client';
import { type Condition, conditionWords, type SelectField, selectFields } from '@clembo/core';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { useState } from 'react';
import { PART_STYLE } from './ListParts';
import type { OpenRoom } from '@/workers/planRoom';
import { ConditionEditor, firstTest } from './ConditionEditor';

interface Props {
  open: OpenRoom;
  where: Condition;
  /** What is done with what the condition chooses: `List only these`. */
  act: string;
  onChange: (where: Condition) => void;
  /** What can be asked, and what it holds, where that is not the fields of activities. */
  of?: { fields: readonly SelectField[]; textsOf: (id: string) => Promise<string[]> };
}

/** The part of a sentence that chooses rows by a condition of any depth. */
export function WherePart({ open, where, act, onChange, of }: Props) {
  const { codeFields, effortDay } = open.head;
  const spoken = of ? { codeFields, effortDay: null, fields: of.fields } : { codeFields, effortDay };
  const fields = selectFields(spoken);
  const [asked, setAsked] = useState(where);
  const words = conditionWords(spoken, where);
  const ready = asked.tests.every(
    (t) => !('values' in t) || t.is === 'empty' || t.is === 'filled' || t.values.length > 0,
  );
  return (
    <Popover as="span">
      <PopoverButton
        data-brief-part="where"
        aria-label={`Only: ${words}`}
        className={PART_STYLE}
        onClick={() => setAsked(where.tests.length > 0 ? where : { match: 'all', tests: [firstTest(fields)] })}
      >
        {words}
      </PopoverButton>
      <PopoverPanel anchor={{ to: 'bottom start', gap: 6 }} className="panel w-[560px] p-4!">
        {({ close }) => (
          <>
            <ConditionEditor
              key={JSON.stringify(where)}
              condition={asked}
              fields={fields}
              textsOf={of?.textsOf ?? ((id) => open.room.texts(id))}
              onChange={setAsked}
            />
            <div className="mt-3 flex gap-2 border-t border-line pt-3">
              <button
                type="button"
                className="action py-1"
                disabled={!ready}
                onClick={() => {
                  onChange(asked);
                  close();
                }}
              >
                {act} only these
              </button>
              <button
                type="button"
                className="quiet py-1"
                onClick={() => {
                  onChange({ match: 'all', tests: [] });
                  close();
                }}
              >
                {act} everything
              </button>
            </div>
          </>
        )}
      </PopoverPanel>
    </Popover>
  );
}
