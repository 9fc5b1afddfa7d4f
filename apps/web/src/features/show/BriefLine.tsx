'use client';
import { type Brief, type Part, sentence, spoken } from '@clembo/scene/brief';
import { WherePart } from '@/features/plan/WherePart';
import type { OpenRoom } from '@/workers/planRoom';
import { DatePart } from './parts/DatePart';
import { FilterPart } from './parts/FilterPart';
import { ManyPart, OnePart } from './parts/ListParts';

interface Props {
  brief: Brief;
  open: OpenRoom;
  onChange: (part: Partial<Brief>) => void;
}

/** The sentence that says what the exhibit shows; every underlined part of it is a control. */
export function BriefLine({ brief, open, onChange }: Props) {
  const { parts } = spoken(brief.kind);
  return (
    <p className="shrink-0 px-6 pt-3.5 pb-3 text-[17px] leading-[27px] text-soft" aria-label="Brief">
      {sentence(parts, brief, open.head).map((s, k) => {
        const part = parts.find((p) => p.name === s.part);
        return part === undefined ? (
          // biome-ignore lint: words stand where they stand
          <span key={k}>{s.text}</span>
        ) : (
          <Control key={part.name} part={part} text={s.text} brief={brief} open={open} onChange={onChange} />
        );
      })}
    </p>
  );
}

/** A part of the sentence by what it can be. */
function Control({ part, text, brief, open, onChange }: Props & { part: Part<Brief>; text: string }) {
  const { head } = open;
  const said = { part: part.name, label: part.label, text };
  switch (part.as) {
    case 'one':
      return (
        <OnePart
          {...said}
          value={part.value(brief)}
          options={part.options(head, brief)}
          onChange={(v) => onChange(part.set(v))}
        />
      );
    case 'many':
      return (
        <ManyPart
          {...said}
          values={part.values(brief)}
          options={part.options(head, brief)}
          {...(part.most !== undefined && { most: part.most })}
          onChange={(v) => onChange(part.set(v))}
        />
      );
    case 'filter':
      return (
        <FilterPart text={text} filters={part.filters(brief)} head={head} onChange={(v) => onChange(part.set(v))} />
      );
    case 'condition':
      return (
        <WherePart open={open} where={part.where(brief)} act="Show" onChange={(where) => onChange(part.set(where))} />
      );
    case 'day':
      return (
        <DatePart
          {...said}
          open={part.open}
          moment={part.moment(brief)}
          isFinish={part.isFinish}
          onChange={(v) => onChange(part.set(v))}
        />
      );
  }
}
