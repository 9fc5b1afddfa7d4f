'use client';
import { codeFieldId, wholePercent } from '@clembo/core';
import type { PartShown } from '@/workers/answers/measure';
import type { PlanHead } from '@/workers/openPlan';
import { BAND_TEXT } from './bands';
import { Section } from './Section';

interface Props {
  head: PlanHead;
  by: string | null;
  parts: PartShown[];
  chosen: string[];
  onPage: () => void;
  onBy: (by: string) => void;
  onPick: (code: string) => void;
}

/** The same by the values of a code field; clicked, only these are measured. */
export function Parts({ head, by, parts, chosen, onPage, onBy, onPick }: Props) {
  if (head.codeFields.length === 0) return null;
  return (
    <Section
      onPage={onPage}
      title={`By ${head.codeFields.find((f) => codeFieldId(f.id) === by)?.name.toLowerCase() ?? 'code'}`}
    >
      <p className="mb-1 flex flex-wrap gap-1.5" role="group" aria-label="Code field">
        {head.codeFields.map((f) => (
          <button
            key={f.id}
            type="button"
            aria-pressed={codeFieldId(f.id) === by}
            onClick={() => onBy(codeFieldId(f.id))}
            className={`rounded-full border px-2 text-[13.5px] ${codeFieldId(f.id) === by ? 'border-ink bg-ink text-paper' : 'border-line'}`}
          >
            {f.name}
          </button>
        ))}
      </p>
      <ul className="max-h-60 overflow-auto text-[14px]">
        {parts.map((p) => (
          <li key={p.code}>
            <button
              type="button"
              data-part={p.code}
              aria-pressed={chosen.includes(p.code)}
              onClick={() => onPick(p.code)}
              className={`grid w-full grid-cols-[minmax(0,1fr)_30px_90px_72px] items-center gap-2 rounded px-1 py-px text-left ${chosen.includes(p.code) ? 'bg-marigold/20' : 'hover:bg-wash'}`}
            >
              <span className="truncate">{p.title}</span>
              <span className="text-right font-narrow text-soft">{p.activities}</span>
              <span
                className="relative block h-[12px] overflow-hidden rounded-[2px] bg-line"
                title={p.percent === null ? '' : `${wholePercent(p.percent)} % complete`}
              >
                <span className="absolute inset-y-0 left-0 bg-kelp" style={{ width: `${p.percent ?? 0}%` }} />
              </span>
              <span className={`text-right font-narrow ${p.band ? BAND_TEXT[p.band] : 'text-soft'}`}>
                {p.late === null
                  ? ''
                  : p.late === 0
                    ? 'on time'
                    : `${Math.abs(p.late)} d ${p.late > 0 ? 'late' : 'ahead'}`}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </Section>
  );
}
