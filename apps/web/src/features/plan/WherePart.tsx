'use client';
import { type Condition, conditionWords, selectFields } from '@clembo/core';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { useState } from 'react';
import { PART_STYLE } from '@/features/show/parts/ListParts';
import type { OpenRoom } from '@/workers/planRoom';
import { ConditionEditor } from './ConditionEditor';

interface Props {
  open: OpenRoom;
  where: Condition;
  /** What is done with what the condition chooses: `List only these`. */
  act: string;
  onChange: (where: Condition) => void;
}

/** The part of a sentence that chooses rows by a condition of any depth. */
export function WherePart({ open, where, act, onChange }: Props) {
  const fields = selectFields(open.head);
  const [asked, setAsked] = useState(where);
  const words = conditionWords(open.head, where);
  const ready = asked.tests.every(
    (t) => !('values' in t) || t.is === 'empty' || t.is === 'filled' || t.values.length > 0,
  );
  return (
    <Popover as="span">
      <PopoverButton
        data-brief-part="where"
        aria-label={`Only: ${words}`}
        className={PART_STYLE}
        onClick={() =>
          setAsked(
            where.tests.length > 0 ? where : { match: 'all', tests: [{ field: 'name', is: 'contains', values: [] }] },
          )
        }
      >
        {words}
      </PopoverButton>
      <PopoverPanel anchor={{ to: 'bottom start', gap: 6 }} className="panel w-[560px] p-4!" focus>
        {({ close }) => (
          <>
            <ConditionEditor
              key={JSON.stringify(where)}
              condition={asked}
              fields={fields}
              textsOf={(id) => open.room.texts(id)}
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
