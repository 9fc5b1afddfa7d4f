'use client';
import type { BlindSpot, Brief } from '@clembo/scene';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { EyeOff } from 'lucide-react';
import type { ComposedPage } from '@/workers/composing';

interface Props {
  blind: NonNullable<ComposedPage['blind']>;
  /** Whether the page says it. */
  said: boolean;
  onMend: (change: Partial<Brief>) => void;
  onChoose: (ref: string) => void;
}

/** So many of each are listed. */
const LISTED = 60;

/** What the page hides that its reader would want to know of: to be seen, shown, or said on the page. */
export function BlindSpots({ blind, said, onMend, onChoose }: Props) {
  const parts: [title: string, list: BlindSpot[]][] = [
    ['Late', blind.late],
    ['Critical', blind.critical],
    ['Milestones', blind.milestones],
  ];
  return (
    <Popover className="flex min-w-0 flex-1">
      <PopoverButton
        data-testid="blind"
        className="quiet max-w-full min-w-0 overflow-hidden py-0.5"
        title={`b: hides ${blind.words}`}
      >
        <EyeOff size={15} aria-hidden className="shrink-0" />
        <span className="truncate">
          hides{' '}
          <span className={blind.late.length + blind.critical.length > 0 ? 'text-madder' : ''}>{blind.words}</span>
        </span>
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'top start', gap: 8 }}
        className="panel max-h-[460px]! w-[420px] overflow-auto p-3!"
        focus
        aria-label="Blind spots"
      >
        {({ close }) => (
          <>
            <div className="flex flex-wrap gap-2 border-b border-line pb-2.5">
              {blind.mends.map((m) => (
                <button
                  key={m.words}
                  type="button"
                  className="quiet py-0.5"
                  onClick={() => {
                    onMend(m.change as Partial<Brief>);
                    close();
                  }}
                >
                  {m.words}
                </button>
              ))}
              <button
                type="button"
                aria-pressed={said}
                className="quiet py-0.5"
                onClick={() => {
                  onMend({ blind: !said } as Partial<Brief>);
                  close();
                }}
              >
                {said ? 'do not say it on the page' : 'say it on the page'}
              </button>
            </div>
            {blind.links > 0 && (
              <p className="mt-2 px-2 text-[14px] text-soft">
                {blind.links} {blind.links === 1 ? 'link begins or ends' : 'links begin or end'} at something that is
                not on the page itself{blind.criticalLinks > 0 && `, ${blind.criticalLinks} of them critical`}.
              </p>
            )}
            {parts.map(
              ([title, list]) =>
                list.length > 0 && (
                  <section key={title} aria-label={title} className="mt-2">
                    <h3 className="px-2 text-[14px] text-soft">
                      {title} <span className="font-narrow">{list.length}</span>
                    </h3>
                    <ul>
                      {list.slice(0, LISTED).map((s) => (
                        <li key={s.ref}>
                          <button
                            type="button"
                            className="choice w-full"
                            onClick={() => {
                              onChoose(s.ref);
                              close();
                            }}
                          >
                            <span className="truncate">{s.name}</span>
                            <span className="ml-auto shrink-0 font-narrow text-[13.5px] text-soft">{s.why}</span>
                          </button>
                        </li>
                      ))}
                    </ul>
                    {list.length > LISTED && (
                      <p className="px-2 text-[13.5px] text-soft">and {list.length - LISTED} more</p>
                    )}
                  </section>
                ),
            )}
          </>
        )}
      </PopoverPanel>
    </Popover>
  );
}
