'use client';
import { TextField } from '@/ui/TextField';
import type { Brief, Fit } from '@clembo/scene';
import { fitWords, shownWords } from '@clembo/scene/brief';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import type { ReactNode } from 'react';
import type { OpenRoom } from '@/workers/planRoom';
import { Advice } from './Advice';
import { BlindSpots } from './BlindSpots';
import { useExhibitName } from './useExhibitName';
import type { ComposedPage } from '@/workers/composing';

/** One strip below the page: the exhibit's name, what is not on the page, and how well the rest sits on it. */
export function FitStrip({
  open,
  brief,
  fit,
  blind,
  saysBlind,
  undated,
  name,
  version,
  unsaved,
  alone,
  mayEdit,
  exhibitId,
  sheet,
  onSheet,
  wide,
  onWide,
  onMend,
  onChoose,
  children,
}: {
  open: OpenRoom | null;
  brief: Brief;
  fit: Fit;
  blind: ComposedPage['blind'];
  /** Whether the page says what it hides. */
  saysBlind: boolean;
  undated: ComposedPage['undated'];
  name: string;
  version: number;
  /** The brief on screen could not be kept on the server. */
  unsaved: boolean;
  /** What is seen was changed by somebody who may not keep it. */
  alone: boolean;
  mayEdit: boolean;
  exhibitId: string;
  sheet: ComposedPage['sheet'];
  onSheet: (sheet: number) => void;
  wide: boolean;
  onWide: (wide: boolean) => void;
  onMend: (change: Partial<Brief>) => void;
  onChoose: (ref: string) => void;
  /** What else is said of the page, after its blind spots. */
  children?: ReactNode;
}) {
  const { kept, rename } = useExhibitName(exhibitId, { name, version });
  const trouble = fitWords(fit);
  const shown = fit.shown ?? shownWords(fit.counts);
  const words = !fit.readable ? 'Too much' : trouble.length > 0 || (fit.counts.noRoom ?? 0) > 0 ? 'Tight' : 'Fits';
  return (
    <div className="flex h-[42px] shrink-0 items-center justify-between gap-4 border-t border-line bg-paper px-6 text-[14.5px]">
      <div className="flex min-w-0 flex-1 items-center gap-3">
        <label className="flex shrink-0 items-center gap-3">
          <span className="text-soft">Exhibit</span>
          <TextField
            value={kept.name}
            readOnly={!mayEdit}
            className="max-w-80 min-w-32 [field-sizing:content] rounded border border-transparent bg-transparent px-1.5 py-0.5 font-semibold hover:border-line focus:border-line"
            onKeep={(name) => (name === '' ? false : rename(name))}
          />
        </label>
        {blind && <BlindSpots blind={blind} said={saysBlind} onMend={onMend} onChoose={onChoose} />}
        {children}
      </div>
      <div className="flex max-w-[56%] min-w-0 shrink-0 items-center gap-3">
        {alone && (
          <span role="status" data-testid="alone" className="shrink-0 text-soft">
            Seen so by you alone; nothing of it is kept
          </span>
        )}
        {unsaved && (
          <span role="alert" className="shrink-0 font-semibold text-madder">
            Not kept yet; it is tried again
          </span>
        )}
        {undated.length > 0 && <Undated list={undated} onChoose={onChoose} />}
        <p data-testid="shown" className="truncate text-soft" title={shown}>
          {shown}
        </p>
        <Popover className="shrink-0">
          <PopoverButton data-testid="fit" className="quiet py-0.5">
            <span className={`font-semibold ${trouble.length > 0 || !fit.readable ? 'text-madder' : ''}`}>{words}</span>
            <span className="text-soft">
              {fit.readable ? `smallest type ${Math.round(fit.smallestType * 10) / 10} pt` : 'cannot be read'}
            </span>
          </PopoverButton>
          <PopoverPanel
            anchor={{ to: 'top end', gap: 8 }}
            className="panel max-h-[560px]! w-[400px] overflow-auto p-3!"
          >
            {({ close }) => (
              <>
                <p className="text-soft">
                  {trouble.length > 0
                    ? `${trouble.join(', ')}.`
                    : (fit.counts.noRoom ?? 0) > 0
                      ? `${fit.counts.noRoom} have no room on this page.`
                      : 'Every label is placed.'}
                </p>
                {fit.advice.length > 0 && <p className="mt-2 font-semibold">To make it fit better</p>}
                <ul className="mt-1 space-y-1">
                  {fit.advice.map((a) => (
                    <li key={a.words}>
                      <Advice
                        open={open}
                        brief={brief}
                        advice={a}
                        onTake={() => {
                          onMend(a.change as Partial<Brief>);
                          close();
                        }}
                      />
                    </li>
                  ))}
                </ul>
              </>
            )}
          </PopoverPanel>
        </Popover>
        {sheet.of > 1 && <Pager sheet={sheet} onSheet={onSheet} />}
        <button
          type="button"
          aria-pressed={wide}
          className="quiet shrink-0 py-0.5"
          title="w"
          onClick={() => onWide(!wide)}
        >
          {wide ? 'Whole page' : 'Full width'}
        </button>
      </div>
    </div>
  );
}

/** Which of several pages is looked at. */
function Pager({ sheet: { number, of }, onSheet }: { sheet: ComposedPage['sheet']; onSheet: (n: number) => void }) {
  const turn = (label: string, to: number, Icon: typeof ChevronLeft) => (
    <button
      type="button"
      aria-label={label}
      disabled={to < 1 || to > of}
      className="rounded p-0.5 hover:bg-wash disabled:opacity-40"
      onClick={() => onSheet(to)}
    >
      <Icon size={16} aria-hidden />
    </button>
  );
  return (
    <span className="flex shrink-0 items-center gap-1" data-testid="pager">
      {turn('Page before', number - 1, ChevronLeft)}
      Page {number} of {of}
      {turn('Next page', number + 1, ChevronRight)}
    </span>
  );
}

/** What has no dates, and so no place on a time axis. */
function Undated({ list, onChoose }: { list: ComposedPage['undated']; onChoose: (ref: string) => void }) {
  return (
    <Popover className="shrink-0">
      <PopoverButton data-testid="undated" className="quiet py-0.5">
        <span className="font-semibold text-madder">{list.length}</span> without dates
      </PopoverButton>
      <PopoverPanel anchor={{ to: 'top start', gap: 8 }} className="panel max-h-80! w-80 overflow-auto p-2">
        <p className="px-2 pb-1 text-soft">Not on the page, since nothing says when:</p>
        <ul>
          {list.map(({ ref, name }) => (
            <li key={ref}>
              <button type="button" className="choice w-full" onClick={() => onChoose(ref)}>
                <span className="truncate">{name || ref}</span>
                <span className="ml-auto shrink-0 font-narrow text-soft">{ref}</span>
              </button>
            </li>
          ))}
        </ul>
      </PopoverPanel>
    </Popover>
  );
}
