'use client';
import { type Brief, portable } from '@clembo/scene/brief';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { Bookmark } from 'lucide-react';
import { useState } from 'react';
import { ask } from '@/ui/ask';
import { toast, wrong } from '@/ui/Toasts';
import type { OpenRoom } from '@/workers/planRoom';

/** Keeps the brief under a name, to be laid over other plans. */
export function KeepBrief({ open, brief, name }: { open: OpenRoom; brief: Brief; name: string }) {
  const [wanted, setWanted] = useState(name);
  const keep = async () => {
    const fields = Object.fromEntries(open.head.codeFields.map((f) => [f.id, f.name]));
    await ask('/api/briefs', { method: 'POST', json: { name: wanted.trim(), brief: portable(brief), fields } });
    toast(`“${wanted.trim()}” is kept: New exhibit offers it on every plan.`);
  };
  return (
    <Popover className="inline">
      <PopoverButton
        aria-label="Keep this brief"
        title="Keep this brief, to lay it over other plans"
        className="ml-1.5 inline-flex size-[22px] items-center justify-center rounded-full border border-line align-[-4px] hover:border-kelp hover:text-kelp"
      >
        <Bookmark size={13} aria-hidden />
      </PopoverButton>
      <PopoverPanel anchor={{ to: 'bottom start', gap: 6 }} className="panel w-80 p-3!">
        {({ close }) => (
          <form
            className="flex flex-col gap-2 text-[15px]"
            onSubmit={(e) => {
              e.preventDefault();
              if (wanted.trim() !== '') keep().then(() => close(), wrong);
            }}
          >
            <label className="flex flex-col gap-1">
              Keep this brief as
              <input
                autoFocus
                className="rounded border border-line bg-paper px-2 py-1"
                value={wanted}
                maxLength={200}
                onChange={(e) => setWanted(e.target.value)}
              />
            </label>
            <p className="text-[13.5px] leading-snug text-soft">
              For other plans: without its dates, and without what is set by hand on this page.
            </p>
            <button type="submit" className="action self-end" disabled={wanted.trim() === ''}>
              Keep it
            </button>
          </form>
        )}
      </PopoverPanel>
    </Popover>
  );
}
