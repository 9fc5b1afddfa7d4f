'use client';
import { type Brief, readBriefSentence, sentenceOf } from '@clembo/scene/brief';
import { type KeyboardEvent, useMemo, useState } from 'react';
import type { PlanHead } from '@/workers/openPlan';

interface Props {
  brief: Brief;
  head: PlanHead;
  onChange: (brief: Brief) => void;
  onClose: () => void;
}

/** The sentence as text: typed in any order, taken over by Enter; what is not understood is said and taken as not said. */
export function TypedBrief({ brief, head, onChange, onClose }: Props) {
  const first = useMemo(
    () =>
      sentenceOf(brief, head)
        .map((s) => s.text)
        .join(''),
    [brief, head],
  );
  const [text, setText] = useState(first);
  const { brief: next, unknown } = useMemo(() => readBriefSentence(text, brief, head), [text, brief, head]);
  const onKey = (e: KeyboardEvent<HTMLTextAreaElement>) => {
    if (e.key === 'Enter') {
      e.preventDefault();
      if (text.trim() !== '') onChange(next);
      if (unknown.length === 0) onClose();
    } else if (e.key === 'Escape') {
      e.stopPropagation();
      onClose();
    }
  };
  return (
    <div className="shrink-0 px-6 pt-3 pb-2.5">
      <textarea
        // biome-ignore lint: it was asked for by a click or a key
        autoFocus
        aria-label="The brief as a sentence"
        aria-invalid={unknown.length > 0}
        rows={2}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={onKey}
        onFocus={(e) => e.currentTarget.select()}
        className="w-full resize-none rounded border border-line bg-paper px-3 py-1.5 text-[17px] leading-[25px] focus:border-kelp"
      />
      <p className="mt-0.5 flex items-baseline gap-4 text-[14px] text-soft">
        <span role={unknown.length > 0 ? 'alert' : undefined} data-testid="typed" className="min-w-0 flex-1 truncate">
          {unknown.length > 0 ? (
            <>
              not understood:{' '}
              {unknown.map((u) => (
                <span key={u.from} className="mr-2 text-madder underline decoration-wavy underline-offset-2">
                  {u.text}
                </span>
              ))}
            </>
          ) : (
            'In any order: “milestones only, in lanes by phase, only the next 6 weeks, on A4 landscape”. What is not spoken of stays.'
          )}
        </span>
        <span className="shrink-0">
          <kbd>Enter</kbd> takes it over · <kbd>Esc</kbd> leaves it
        </span>
      </p>
    </div>
  );
}
