'use client';
import { type AssessmentPoint, pointWords } from '@clembo/core';
import Link from 'next/link';
import { PanelHead } from '@/ui/PanelHead';
import { useState } from 'react';
import type { Checks } from '@/workers/answers/checks';

const SEVERITY_WORDS = { error: 'Must be mended', warning: 'Look at it', note: 'Worth knowing' } as const;
const TONES = { error: 'text-madder', warning: 'text-ink', note: 'text-soft' } as const;
const SHOWN_REFS = 12;

/** The findings on the quality of the data, each with the rows it is about, and the 14-point assessment. */
export function ChecksPanel({
  checks,
  planId,
  onJump,
  onClose,
}: {
  checks: Checks;
  planId: string;
  onJump: (ref: string) => void;
  onClose: () => void;
}) {
  return (
    <aside
      aria-label="Checks"
      className="w-[360px] shrink-0 overflow-auto border-t border-l border-line bg-paper px-4 py-3 text-[14.5px]"
    >
      <PanelHead title="Checks" close="Close the checks" onClose={onClose} />
      <Link href={`/plans/${planId}/gather/work`} className="text-[14px] text-kelp hover:underline">
        Mend them one after the other
      </Link>
      {checks.findings.length === 0 && <p className="mt-2 text-soft">Nothing to say about this plan.</p>}
      {(['error', 'warning', 'note'] as const).map((severity) => {
        const found = checks.findings.filter((f) => f.severity === severity);
        if (found.length === 0) return null;
        return (
          <section key={severity} className="mt-3">
            <h3 className="text-[13.5px] text-soft">{SEVERITY_WORDS[severity]}</h3>
            <ul className="mt-1 space-y-2.5">
              {found.map((f) => (
                <li key={`${f.code} ${f.refs.join(' ')}`}>
                  <Words finding={f} onJump={onJump} />
                </li>
              ))}
            </ul>
          </section>
        );
      })}
      <h3 className="mt-5 border-t border-line pt-3 font-semibold">14-point assessment</h3>
      {checks.baseline !== null && <p className="text-[13.5px] text-soft">against {checks.baseline}</p>}
      <ul className="mt-1.5">
        {checks.points.map((p) => (
          <Point key={p.name} point={p} onJump={onJump} />
        ))}
      </ul>
    </aside>
  );
}

/** A finding with its references as ways to their rows; those that the words leave out stand below. */
function Words({ finding, onJump }: { finding: Checks['findings'][number]; onJump: (ref: string) => void }) {
  const { words, refs, severity } = finding;
  const said = new Set(words.filter((_, k) => k % 2 === 1));
  return (
    <>
      <p className={TONES[severity]}>
        {words.map((part, k) => (k % 2 === 1 ? <Jump key={k} to={part} onJump={onJump} /> : part))}
      </p>
      <Rows refs={refs.filter((r) => !said.has(r))} onJump={onJump} />
    </>
  );
}

function Jump({ to, onJump }: { to: string; onJump: (ref: string) => void }) {
  return (
    <button type="button" className="font-narrow text-kelp hover:underline" onClick={() => onJump(to)}>
      {to}
    </button>
  );
}

function Rows({ refs, onJump }: { refs: string[]; onJump: (ref: string) => void }) {
  const [all, setAll] = useState(false);
  const list = [...new Set(refs)];
  if (list.length === 0) return null;
  const shown = all ? list : list.slice(0, SHOWN_REFS);
  return (
    <p className="mt-0.5 flex flex-wrap gap-x-2 font-narrow">
      {shown.map((ref) => (
        <Jump key={ref} to={ref} onJump={onJump} />
      ))}
      {shown.length < list.length && (
        <button type="button" className="text-soft hover:underline" onClick={() => setAll(true)}>
          and {list.length - shown.length} more
        </button>
      )}
    </p>
  );
}

/** A point with its measure against what is allowed; its rows open below it. */
function Point({ point, onJump }: { point: AssessmentPoint; onJump: (ref: string) => void }) {
  const [open, setOpen] = useState(false);
  const value = point.value === null ? '–' : pointWords(point);
  const limit =
    point.as === 'test'
      ? ''
      : `${point.kind === 'atMost' ? '≤' : '≥'} ${point.as === 'share' ? `${point.threshold * 100} %` : point.threshold}`;
  return (
    <li className="border-b border-line/60 py-1">
      <button
        type="button"
        className="grid w-full grid-cols-[1fr_58px_58px] items-baseline gap-2 text-left disabled:cursor-default"
        disabled={point.refs.length === 0}
        aria-expanded={point.refs.length > 0 ? open : undefined}
        onClick={() => setOpen((v) => !v)}
      >
        <span className="first-letter:uppercase">{point.name}</span>
        <span
          className={`text-right font-semibold ${point.value === null ? 'text-soft' : point.passes ? 'text-kelp' : 'text-madder'}`}
        >
          {value}
        </span>
        <span className="text-right text-soft">{limit}</span>
      </button>
      {open && <Rows refs={point.refs} onJump={onJump} />}
    </li>
  );
}
