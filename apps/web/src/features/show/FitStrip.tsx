'use client';
import type { Fit } from '@clembo/scene';
import { useState } from 'react';
import { ask } from '@/ui/ask';
import { wrong } from '@/ui/Toasts';

/** One strip below the page: the exhibit's name, and how well it sits on its page. */
export function FitStrip({
  fit,
  name,
  exhibitId,
  wide,
  onWide,
}: {
  fit: Fit;
  name: string;
  exhibitId: string;
  wide: boolean;
  onWide: (wide: boolean) => void;
}) {
  const [kept, setKept] = useState(name);
  const rename = (text: string) => {
    const wanted = text.trim();
    if (wanted === '' || wanted === kept) return;
    setKept(wanted);
    ask(`/api/exhibits/${exhibitId}`, { method: 'PATCH', json: { name: wanted } }).catch(wrong);
  };
  const trouble = [
    fit.labelsWithoutPlace > 0 ? `${fit.labelsWithoutPlace} names without a place` : '',
    fit.labelsInKey > 0 ? `${fit.labelsInKey} names in the key` : '',
    fit.labelsShortened > 0 ? `${fit.labelsShortened} names shortened` : '',
    fit.textsBeyondFonts > 0 ? `${fit.textsBeyondFonts} texts with characters that the page’s fonts lack` : '',
  ].filter(Boolean);
  return (
    <div className="flex h-[42px] shrink-0 items-center justify-between border-t border-line bg-paper px-6 text-[14.5px]">
      <label className="flex items-center gap-3">
        <span className="text-soft">Exhibit</span>
        <input
          key={kept}
          defaultValue={kept}
          className="w-64 rounded border border-transparent bg-transparent px-1.5 py-0.5 font-semibold hover:border-line focus:border-line"
          onBlur={(e) => rename(e.target.value)}
          onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        />
      </label>
      <div className="flex items-center gap-4">
        <p data-testid="fit">
          <span className={`font-semibold ${trouble.length > 0 ? 'text-madder' : ''}`}>
            {trouble.length > 0 ? 'Tight' : 'Fits'}
          </span>
          <span className="text-soft">
            {' '}
            smallest type {Math.round(fit.smallestType * 10) / 10} pt · {fit.shown} of {fit.of} shown ·{' '}
            {trouble.length > 0 ? trouble.join(' · ') : 'every label placed'}
          </span>
        </p>
        <button type="button" aria-pressed={wide} className="quiet py-0.5" title="w" onClick={() => onWide(!wide)}>
          {wide ? 'Whole page' : 'Full width'}
        </button>
      </div>
    </div>
  );
}
