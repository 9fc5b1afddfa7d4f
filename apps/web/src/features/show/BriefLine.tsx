'use client';
import { type Brief, type Part, sentence, spoken, unsaid } from '@clembo/scene/brief';
import { isChainage, placeWords, type SelectField } from '@clembo/core';
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { PencilLine, Plus, Rows3, Scale } from 'lucide-react';
import { useEffect, useState } from 'react';
import { KeepBrief } from './KeepBrief';
import { Regroup } from './Regroup';
import { TypedBrief } from './TypedBrief';
import { WherePart } from '@/ui/sentence/WherePart';
import { wrong } from '@/ui/Toasts';
import type { PlanHead } from '@/workers/openPlan';
import type { OpenRoom } from '@/workers/planRoom';
import { DatePart } from '@/ui/sentence/DatePart';
import { DatesPart } from '@/ui/sentence/DatesPart';
import { ManyPart, OnePart } from '@/ui/sentence/ListParts';
import { PicturePart } from '@/ui/sentence/PicturePart';
import { PlacePart } from '@/ui/sentence/PlacePart';
import { SizePart } from '@/ui/sentence/SizePart';
import { TextPart } from '@/ui/sentence/TextPart';

interface Props {
  brief: Brief;
  open: OpenRoom;
  onChange: (part: Partial<Brief>) => void;
}

const ROUND =
  'ml-1.5 inline-flex h-[22px] items-center justify-center rounded-full border border-line align-[-4px] hover:border-kelp hover:text-kelp';

/**
 * The sentence that says what the exhibit shows; every underlined part of it is a control. Parts at their default are
 * not said, and can be added.
 */
export function BriefLine({
  brief,
  open,
  onChange,
  name,
  onBalance,
}: Props & {
  name: string;
  /** Looks at what would keep works along a line apart. */
  onBalance: () => void;
}) {
  const [regrouping, setRegrouping] = useState(false);
  const { parts } = spoken(brief.kind);
  const head = useSpokenHead(open, brief);
  const [added, setAdded] = useState<ReadonlySet<string>>(new Set());
  const [latest, setLatest] = useState<string | null>(null);
  const [typing, setTyping] = useState(false);
  const more = unsaid(parts, brief, head).filter((p) => !added.has(p.name));
  useEffect(() => {
    if (latest !== null) document.querySelector<HTMLElement>(`[data-brief-part="${latest}"]`)?.focus();
  }, [latest]);
  if (typing) return <TypedBrief brief={brief} head={head} onChange={onChange} onClose={() => setTyping(false)} />;
  return (
    <div className="shrink-0 px-6 pt-3.5 pb-3 text-[17px] leading-[27px] text-soft">
      <p className="inline" aria-label="Brief">
        {sentence(parts, brief, head, added).map((s, k) => {
          const part = parts.find((p) => p.name === s.part);
          return part === undefined ? (
            // biome-ignore lint: words stand where they stand
            <span key={k}>{s.text}</span>
          ) : (
            <Control
              key={part.name}
              part={part}
              text={s.text}
              brief={brief}
              open={open}
              head={head}
              onChange={onChange}
            />
          );
        })}
        {more.length > 0 && (
          <Menu>
            <MenuButton
              aria-label="Say more"
              title="Say more: parts that are as they are where nobody says anything"
              className="ml-2 inline-flex size-[22px] items-center justify-center rounded-full border border-line align-[-4px] hover:border-kelp hover:text-kelp"
            >
              <Plus size={14} aria-hidden />
            </MenuButton>
            <MenuItems anchor={{ to: 'bottom start', gap: 6 }} className="panel grid w-[29rem] grid-cols-2">
              {more.map((p) => (
                <MenuItem key={p.name}>
                  <button
                    type="button"
                    data-add={p.name}
                    className="choice w-full"
                    onClick={() => {
                      setAdded((a) => new Set([...a, p.name]));
                      setTimeout(() => setLatest(p.name), 0);
                    }}
                  >
                    {p.label}
                  </button>
                </MenuItem>
              ))}
            </MenuItems>
          </Menu>
        )}
        <button
          type="button"
          aria-label="Type the sentence"
          title="t: type the sentence"
          data-testid="type-brief"
          className={`${ROUND} w-[22px]`}
          onClick={() => setTyping(true)}
        >
          <PencilLine size={13} aria-hidden />
        </button>
      </p>
      <KeepBrief open={open} brief={brief} name={name} />
      {brief.kind === 'timeline' && (
        <button
          type="button"
          className={`${ROUND} gap-1 px-2 text-[14px]`}
          title="See this page in other lanes"
          onClick={() => setRegrouping(true)}
        >
          <Rows3 size={13} aria-hidden /> Regroup
        </button>
      )}
      {brief.kind === 'linear' && (
        <button
          type="button"
          className={`${ROUND} gap-1 px-2 text-[14px]`}
          title="Who would move, to keep days between works"
          onClick={onBalance}
        >
          <Scale size={13} aria-hidden /> Balance
        </button>
      )}
      {regrouping && <Regroup open={open} brief={brief} onTake={onChange} onClose={() => setRegrouping(false)} />}
    </div>
  );
}

/** The head of a plan with what its models can be asked, for sentences that speak of those. */
function useSpokenHead(open: OpenRoom, brief: Brief): PlanHead {
  const [fields, setFields] = useState<readonly SelectField[] | null>(null);
  const speaks = brief.kind === 'build';
  useEffect(() => {
    let current = true;
    if (speaks) open.room.elementFieldList().then((list) => current && setFields(list), wrong);
    return () => {
      current = false;
    };
  }, [open, speaks]);
  return fields && speaks ? { ...open.head, elementFields: [...fields] } : open.head;
}

/** A part of the sentence by what it can be. */
function Control({
  part,
  text,
  brief,
  open,
  head,
  onChange,
}: Props & { part: Part<Brief>; text: string; head: PlanHead }) {
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
    case 'condition':
      return (
        <WherePart
          open={open}
          where={part.where(brief)}
          act="Show"
          onChange={(where) => onChange(part.set(where))}
          {...(part.fields && {
            of: { fields: part.fields(head), textsOf: (id: string) => open.room.elementTexts(id) },
          })}
        />
      );
    case 'dates':
      return <DatesPart {...said} dates={part.dates(brief)} onChange={(v) => onChange(part.set(v))} />;
    case 'text':
      return <TextPart {...said} value={part.text(brief)} most={part.most} onChange={(v) => onChange(part.set(v))} />;
    case 'picture':
      return <PicturePart {...said} picture={part.picture(brief)} onChange={(v) => onChange(part.set(v))} />;
    case 'size':
      return <SizePart {...said} size={part.size(brief)} onChange={(v) => onChange(part.set(v))} />;
    case 'place': {
      const place = part.place(brief);
      const unit = part.unit(brief, head);
      return (
        <PlacePart
          {...said}
          open={part.open}
          value={part.typed ? part.typed(brief, head) : place === null ? '' : placeWords(place, unit)}
          unit={isChainage(unit) ? '' : unit}
          read={(typed) => part.read(typed, head, brief)}
          onChange={(v) => onChange(part.set(v))}
        />
      );
    }
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
