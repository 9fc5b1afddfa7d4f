'use client';
import { type HandoffsBrief, STEP_KINDS, STEP_WORDS, type StepKind, type TypedProcess } from '@clembo/scene/brief';
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/react';
import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import { openByEnter } from '@/ui/openByEnter';
import { toast, wrong } from '@/ui/Toasts';
import type { OpenRoom } from '@/workers/planRoom';
import { StepDetails } from './StepDetails';
import { StepGlyph } from './StepGlyph';
import { useSteps } from './useSteps';

interface Props {
  brief: HandoffsBrief;
  open: OpenRoom | null;
  /** The step that is chosen on the page. */
  chosen: string | null;
  onChange: (part: Partial<HandoffsBrief>) => void;
  onChoose: (id: string | null) => void;
}

/** The steps of a process, typed by keys: Enter makes the next, Backspace in an empty one takes it away. */
export function StepsPanel({ brief, open, chosen, onChange, onChoose }: Props) {
  const steps = useSteps(brief, onChange);
  const list = useRef<HTMLOListElement>(null);
  /** The step whose name is to be typed next. */
  const [next, setNext] = useState<string | null>(null);
  const fieldOf = (id: string) =>
    list.current?.querySelector<HTMLInputElement>(`[data-step="${CSS.escape(id)}"] input`);

  const take = ({ left, ...process }: TypedProcess & { left: number }) => {
    onChange(process);
    if (left > 0) toast(`A process holds ${process.steps.length} steps: ${left} are left out.`, { tone: 'wrong' });
  };

  useEffect(() => {
    if (next === null) return;
    const field = fieldOf(next);
    if (!field) return;
    field.focus();
    setNext(null);
  }, [next, steps]);

  const onKey = (event: KeyboardEvent<HTMLInputElement>, id: string, at: number) => {
    const { key, altKey, currentTarget } = event;
    const go = (by: number) => {
      const other = steps.steps[at + by];
      if (other) fieldOf(other.id)?.focus();
    };
    if (key === 'Enter') {
      event.preventDefault();
      setNext(steps.add(id, { name: currentTarget.value.trim() }));
    } else if (key === 'Backspace' && currentTarget.value === '') {
      event.preventDefault();
      const before = steps.steps[at - 1] ?? steps.steps[at + 1];
      steps.remove(id);
      onChoose(null);
      if (before) setNext(before.id);
    } else if (key === 'ArrowDown' || key === 'ArrowUp') {
      event.preventDefault();
      const by = key === 'ArrowDown' ? 1 : -1;
      if (altKey) {
        steps.shift(id, by);
        setNext(id);
      } else go(by);
    } else if (key === 'Escape') currentTarget.blur();
  };

  return (
    <aside aria-label="Steps" className="w-[330px] shrink-0 overflow-auto pr-5 pb-4 text-[14.5px]">
      <h2 className="font-serif text-[17px] leading-tight font-semibold">Steps</h2>
      {steps.steps.length === 0 ? (
        <div className="mt-3 space-y-2">
          <p className="text-soft">Type one step after the other; each says who does it and what it leads to.</p>
          <button type="button" className="action" onClick={() => setNext(steps.add(null))}>
            Type the first step
          </button>
          <button type="button" className="quiet" onClick={() => open?.room.typedSteps(brief).then(take, wrong)}>
            Begin with the activities of the plan
          </button>
        </div>
      ) : (
        <>
          <p className="mt-0.5 text-[13.5px] text-soft">
            Enter: next step · Backspace in an empty one: away · Alt with ↑ ↓: order · a question is a decision
          </p>
          <ol ref={list} className="mt-2">
            {steps.steps.map((step, at) => (
              <li
                key={step.id}
                data-step={step.id}
                aria-current={step.id === chosen}
                className={step.id === chosen ? 'rounded-md bg-wash px-1.5 py-1' : 'px-1.5 py-0.5'}
              >
                <div className="flex items-center gap-1.5">
                  <KindPick kind={step.kind} onChange={(kind) => steps.change(step.id, { kind })} />
                  <input
                    // What is typed is kept when it is done.
                    key={step.name}
                    aria-label={`Name of step ${at + 1}`}
                    defaultValue={step.name}
                    maxLength={200}
                    placeholder="What is done"
                    className="min-w-0 flex-1 rounded border border-transparent bg-transparent px-1.5 py-0.5 hover:border-line focus:border-kelp focus:bg-paper"
                    onFocus={() => onChoose(step.id)}
                    onBlur={(e) => {
                      const name = e.target.value.trim();
                      if (name !== step.name) steps.change(step.id, { name });
                    }}
                    onKeyDown={(e) => onKey(e, step.id, at)}
                  />
                </div>
                {step.id === chosen && <StepDetails step={step} steps={steps} onMade={setNext} />}
              </li>
            ))}
          </ol>
          <button type="button" className="quiet mt-3" onClick={() => setNext(steps.add(steps.steps.at(-1)!.id))}>
            One more step
          </button>
        </>
      )}
    </aside>
  );
}

function KindPick({ kind, onChange }: { kind: StepKind; onChange: (kind: StepKind) => void }) {
  return (
    <Listbox value={kind} onChange={onChange}>
      <ListboxButton
        aria-label={`Kind: ${STEP_WORDS[kind]}`}
        title={STEP_WORDS[kind]}
        onKeyDown={openByEnter}
        className="rounded border border-transparent p-1 hover:border-line"
      >
        <StepGlyph kind={kind} />
      </ListboxButton>
      <ListboxOptions anchor="bottom start" className="panel">
        {STEP_KINDS.map((k) => (
          <ListboxOption key={k} value={k} className="choice flex items-center gap-2">
            <StepGlyph kind={k} /> {STEP_WORDS[k]}
          </ListboxOption>
        ))}
      </ListboxOptions>
    </Listbox>
  );
}
