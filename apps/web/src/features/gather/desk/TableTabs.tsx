import { FileSpreadsheet } from 'lucide-react';
import type { Intake } from './useIntake';

/** The sheets and files that were read: which are taken in, each a project where there are several, and which one is seen. */
export function TableTabs({ intake }: { intake: Intake }) {
  const { view, correct } = intake;
  const { tables, state } = view;
  const files = new Set(tables.map((t) => t.source)).size;
  const used = tables.filter((t) => t.used).length;
  return (
    <div className="flex items-center gap-3 px-6 pb-1.5" role="group" aria-label="Tables">
      <div className="flex min-w-0 flex-wrap gap-1.5">
        {tables.map((t, k) => {
          const shown = state.shown === k;
          const title = files > 1 ? t.title : (t.sheet ?? t.source);
          return (
            <span
              key={`${t.source} ${t.sheet}`}
              className={`flex items-center overflow-hidden rounded-md border ${shown ? 'border-ink bg-paper' : 'border-line bg-paper/60'}`}
            >
              <label className="flex items-center py-1 pl-2" title={t.used ? 'Taken in' : 'Left out'}>
                <input
                  type="checkbox"
                  aria-label={`Take in ${title}`}
                  checked={t.used}
                  disabled={t.used && used === 1}
                  onChange={(e) => correct({ use: k, on: e.target.checked })}
                  className="size-3.5 accent-kelp"
                />
              </label>
              <button
                type="button"
                aria-pressed={shown}
                onClick={() => !shown && correct({ show: k })}
                className={`flex items-center gap-1.5 py-1 pr-2.5 pl-2 ${shown ? 'font-semibold' : ''} ${t.used ? '' : 'text-soft'}`}
              >
                <FileSpreadsheet size={14} aria-hidden className="text-kelp" />
                <span className="max-w-44 truncate">{title}</span>
                <span className="text-[13px] font-normal text-soft">
                  {t.rows} rows{t.hidden ? ', hidden' : ''}
                </span>
              </button>
            </span>
          );
        })}
      </div>
      {used > 1 && <span className="shrink-0 text-[14px] text-soft">{used} projects in one plan</span>}
    </div>
  );
}
