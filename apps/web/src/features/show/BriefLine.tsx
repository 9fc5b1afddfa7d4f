'use client';
import {
  type BriefPart,
  briefSentence,
  INCLUDE_WORDS,
  LABEL_PARTS,
  LABEL_WORDS,
  MOST_LANE_LEVELS,
  PAGES,
  type PageName,
  PRINT_WORDS,
  PROMISED,
  type TimelineBrief,
} from '@clembo/scene/brief';
import type { PlanHead } from '@/workers/plan.worker';
import { DatePart } from './parts/DatePart';
import { FilterPart } from './parts/FilterPart';
import { ManyPart, OnePart } from './parts/ListParts';

interface Props {
  brief: TimelineBrief;
  head: PlanHead;
  onChange: (part: Partial<TimelineBrief>) => void;
}

/** The sentence that says what the exhibit shows; every underlined part of it is a control. */
export function BriefLine({ brief, head, onChange }: Props) {
  return (
    <p className="shrink-0 px-6 pt-3.5 pb-3 text-[17px] leading-[27px] text-soft" aria-label="Brief">
      {briefSentence(brief, head).map((s) =>
        s.part === undefined ? (
          <span key={s.text}>{s.text}</span>
        ) : (
          <Part key={s.part} part={s.part} text={s.text} brief={brief} head={head} onChange={onChange} />
        ),
      )}
    </p>
  );
}

function Part({ part, text, brief, head, onChange }: Props & { part: BriefPart; text: string }) {
  const fields = head.codeFields.map((f): [string, string] => [f.id, f.name.toLowerCase()]);
  const one = (label: string, value: string, options: [string, string][], choose: (v: string) => void) => (
    <OnePart part={part} label={label} text={text} value={value} options={options} onChange={choose} />
  );
  switch (part) {
    case 'include':
      return one('What is shown', brief.include, Object.entries(INCLUDE_WORDS), (v) =>
        onChange({ include: v as TimelineBrief['include'] }),
      );
    case 'level':
      return one(
        'Deepest level',
        String(brief.level ?? 'all'),
        [
          ['all', 'the last level'],
          ...Array.from({ length: head.levels }, (_, k): [string, string] => [String(k + 1), `level ${k + 1}`]),
        ],
        (v) => onChange({ level: v === 'all' ? null : Number(v) }),
      );
    case 'where':
      return <FilterPart text={text} filters={brief.where} head={head} onChange={(where) => onChange({ where })} />;
    case 'lanes':
      // Chosen one after the other, outermost first.
      return (
        <ManyPart
          part={part}
          label="Lanes"
          text={text}
          values={brief.lanes}
          options={[...(head.levels > 1 ? [['outline', 'outline'] as [string, string]] : []), ...fields]}
          most={MOST_LANE_LEVELS}
          onChange={(lanes) => onChange({ lanes })}
        />
      );
    case 'rows':
      return one(
        'Rows',
        brief.rows,
        [
          ['packed', 'packed: as few as fit'],
          ['each', 'each: one activity a row'],
        ],
        (v) => onChange({ rows: v as TimelineBrief['rows'] }),
      );
    case 'colour':
      return one(
        'Colour',
        brief.colour ?? '',
        [['', 'in one colour'], ...fields.map(([id, name]): [string, string] => [id, `by ${name}`])],
        (v) => onChange({ colour: v === '' ? null : v }),
      );
    case 'compare':
      return one(
        'Compared with',
        brief.compare ?? '',
        [
          ['', 'nothing'],
          ...head.editions.map(({ id, name }, k): [string, string] => [
            k === head.editions.length - 1 ? PROMISED : id,
            name,
          ]),
        ],
        (v) => onChange({ compare: v === '' ? null : v }),
      );
    case 'labels':
      return (
        <ManyPart
          part={part}
          label="Labels"
          text={text}
          values={brief.labels}
          options={LABEL_PARTS.map((l): [string, string] => [l, LABEL_WORDS[l]])}
          onChange={(v) => onChange({ labels: LABEL_PARTS.filter((l) => v.includes(l)) })}
        />
      );
    case 'periods':
      return one(
        'Periods',
        brief.periods ? 'yes' : 'no',
        [
          ['yes', 'mark the plan’s periods'],
          ['no', 'mark none'],
        ],
        (v) => onChange({ periods: v === 'yes' }),
      );
    case 'from':
      return (
        <DatePart
          part={part}
          text={text}
          open="the start"
          label="From"
          moment={brief.from}
          isFinish={false}
          onChange={(from) => onChange({ from })}
        />
      );
    case 'to':
      return (
        <DatePart
          part={part}
          text={text}
          open="the finish"
          label="To"
          moment={brief.to}
          isFinish
          onChange={(to) => onChange({ to })}
        />
      );
    case 'page':
      return one(
        'Page',
        brief.page,
        Object.keys(PAGES).map((p): [string, string] => [p, p]),
        (v) => onChange({ page: v as PageName }),
      );
    case 'print':
      return one('Print', brief.print, Object.entries(PRINT_WORDS), (v) =>
        onChange({ print: v as TimelineBrief['print'] }),
      );
  }
}
