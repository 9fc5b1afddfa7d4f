'use client';
import { type Amount, notCounted, wholePercent } from '@clembo/core';
import type { StandingShown } from '@/workers/answers/measure';
import { BAND_TEXT } from './bands';

const percent = (n: number | null): string | null => (n === null ? null : `${wholePercent(n)} %`);
const index = (n: number): string => n.toFixed(2);

/** Percentages by time and by effort that differ by so many points are explained. */
const APART = 15;

/** The standing in four large statements. */
export function Statements({ shown, amount }: { shown: StandingShown; amount: Amount }) {
  const { finish, percent: p, indices, atEnd, whole } = shown;
  const apart = p.time !== null && p.effort !== null && Math.abs(p.time - p.effort) >= APART;
  const list: {
    words: string;
    about: string;
    tone: string;
    note?: string | undefined;
    whole?: string | null | undefined;
  }[] = [];
  if (finish)
    list.push({
      words: finish.words,
      about: finish.about,
      tone: finish.band ? BAND_TEXT[finish.band] : 'text-ink',
      whole: whole?.finish?.words,
    });
  const done = p.time ?? p.stated;
  if (done !== null)
    list.push({
      words: percent(done)!,
      about: [
        'done by time',
        p.effort === null ? '' : `${percent(p.effort)} by effort`,
        p.planned === null ? '' : `${percent(p.planned)} planned`,
        notCounted(p.unknown),
      ]
        .filter(Boolean)
        .join(' · '),
      tone: 'text-ink',
      whole: whole && percent(whole.percent.time ?? whole.percent.stated),
      ...(apart && {
        note:
          p.time! > p.effort!
            ? 'Time has gone faster than work was done.'
            : 'More work was done than the time that has gone.',
      }),
    });
  if (indices && indices.spi !== null)
    list.push({
      words: index(indices.spi),
      about: indices.words,
      tone: indices.band ? BAND_TEXT[indices.band] : 'text-ink',
      whole: whole?.indices?.spi ? index(whole.indices.spi) : null,
    });
  if (atEnd)
    list.push({
      words: atEnd.words,
      about: `${atEnd.about}, by ${amount}`,
      tone: BAND_TEXT[atEnd.band],
      whole: whole?.atEnd?.words,
    });
  return (
    <div
      className="my-4 grid gap-8"
      style={{ gridTemplateColumns: `repeat(${Math.max(1, list.length)}, minmax(0, 1fr))` }}
    >
      {list.map((s) => (
        <div key={s.about} data-testid="statement">
          <p className={`font-serif text-[32px] leading-tight font-semibold ${s.tone}`}>{s.words}</p>
          <p className="mt-0.5 text-[14px] leading-snug text-soft">{s.about}</p>
          {s.whole && <p className="mt-0.5 text-[14px] text-soft">whole plan: {s.whole.toLowerCase()}</p>}
          {s.note && <p className="mt-0.5 text-[14px] leading-snug">{s.note}</p>}
        </div>
      ))}
    </div>
  );
}
