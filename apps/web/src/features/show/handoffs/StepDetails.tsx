'use client';
import { TextField } from '@/ui/TextField';
import { dayOf, endOfDay, finishDayOf, isoDate, startOfDay } from '@clembo/core/time';
import { type Step, STEP_WORDS } from '@clembo/scene/brief';
import { X } from 'lucide-react';
import { useId } from 'react';
import { DayField, dayOfField } from '@/ui/DayField';
import type { Steps } from './useSteps';

const FIELD = 'w-full rounded border border-line bg-paper px-1.5 py-0.5';

/** Who does a step, in which phase, when, and what it leads to. */
export function StepDetails({
  step,
  steps,
  onMade,
}: {
  step: Step;
  steps: Steps;
  /** A step was made that is to be named. */
  onMade: (id: string) => void;
}) {
  const [hands, phases] = [useId(), useId()];
  const nameOf = (id: string) => {
    const other = steps.steps.find((s) => s.id === id);
    return other ? other.name || STEP_WORDS[other.kind] : id;
  };
  const ways = steps.arrows.filter((a) => a.from === step.id);
  const open = steps.steps.filter((s) => s.id !== step.id && !ways.some((w) => w.to === s.id));
  const day = (key: 'start' | 'finish') => (value: string) => {
    const found = value === '' ? null : dayOfField(value);
    if (value === '' || found !== null)
      steps.change(step.id, { [key]: found === null ? null : key === 'start' ? startOfDay(found) : endOfDay(found) });
  };
  return (
    <div className="mt-1.5 mb-1 grid grid-cols-[62px_1fr] items-center gap-x-2 gap-y-1.5 pl-1">
      <label htmlFor={hands} className="text-soft">
        By
      </label>
      <span>
        <TextField
          id={hands}
          className={FIELD}
          list={`${hands}-known`}
          value={step.by.join(', ')}
          placeholder="who; several with a comma"
          onKeep={(text) => steps.change(step.id, { by: listed(text) })}
        />
        <datalist id={`${hands}-known`}>
          {steps.hands.map((h) => (
            <option key={h} value={h} />
          ))}
        </datalist>
      </span>
      <label htmlFor={phases} className="text-soft">
        Phase
      </label>
      <span>
        <TextField
          id={phases}
          className={FIELD}
          list={`${phases}-known`}
          value={step.phase}
          maxLength={120}
          onKeep={(phase) => steps.change(step.id, { phase })}
        />
        <datalist id={`${phases}-known`}>
          {steps.phases.map((p) => (
            <option key={p} value={p} />
          ))}
        </datalist>
      </span>
      <span className="text-soft">From</span>
      <DayField
        label="First day of the step"
        value={step.start === null ? '' : isoDate(dayOf(step.start))}
        onChange={day('start')}
      />
      <span className="text-soft">To</span>
      <DayField
        label="Last day of the step"
        value={step.finish === null ? '' : isoDate(finishDayOf(step.finish))}
        onChange={day('finish')}
      />
      <span className="self-start pt-1 text-soft">Leads to</span>
      <div>
        <ul className="space-y-1">
          {ways.map((way) => (
            <li key={way.to} className="flex items-center gap-1">
              <TextField
                aria-label={`Name of the way to ${nameOf(way.to)}`}
                className={`${FIELD} w-[74px]! shrink-0`}
                value={way.words}
                maxLength={60}
                placeholder={step.kind === 'decision' ? 'if …' : ''}
                onKeep={(words) => steps.say(step.id, way.to, words)}
              />
              <span className="min-w-0 flex-1 truncate">{nameOf(way.to)}</span>
              <button
                type="button"
                aria-label={`No longer to ${nameOf(way.to)}`}
                className="rounded p-0.5 text-soft hover:bg-line"
                onClick={() => steps.unlead(step.id, way.to)}
              >
                <X size={13} />
              </button>
            </li>
          ))}
        </ul>
        <select
          aria-label="Leads to one more"
          className={`${FIELD} mt-1`}
          value=""
          onChange={(e) => {
            const { value } = e.target;
            if (value === NEW) onMade(steps.add(step.id));
            else if (value !== '') steps.lead(step.id, value);
          }}
        >
          <option value="">one more …</option>
          <option value={NEW}>a new step</option>
          {open.map((s) => (
            <option key={s.id} value={s.id}>
              {nameOf(s.id)}
            </option>
          ))}
        </select>
      </div>
    </div>
  );
}

const NEW = 'new step';

/** Names with commas between them, each once. */
const listed = (text: string): string[] => [
  ...new Set(
    text
      .split(',')
      .map((t) => t.trim().slice(0, 120))
      .filter(Boolean)
      .slice(0, 12),
  ),
];
