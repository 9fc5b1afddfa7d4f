'use client';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { requirableFields } from '@clembo/core';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { PlanTurns } from '@/ui/plan/PlanTurns';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import { usePlanSearch } from '@/ui/plan/usePlanSearch';
import { Frame, type FramePlan } from '@/ui/Frame';
import { wrong } from '@/ui/Toasts';
import type { WorkShown } from '@/workers/answers/work';
import { type OpenRoom, usePlanRoom } from '@/workers/planRoom';
import { GatherTabs } from '../plan/GatherTabs';
import { Alike } from './Alike';
import { MendControl } from './MendControl';

type Group = WorkShown['groups'][number];
type Item = Group['items'][number];

const SEVERITY = [
  ['error', 'Must be mended', 'bg-madder'],
  ['warning', 'Look at it', 'bg-marigold'],
  ['note', 'Worth knowing', 'bg-line'],
] as const;

/** What is wrong or doubtful in a plan, kind by kind, each with the ways to mend it where it stands. */
export function WorkDesk({ plan, version }: { plan: FramePlan; version: number }) {
  const { open, error } = usePlanRoom(plan.id, version);
  const [opened, setOpened] = useState<Record<string, number>>({});
  const [work, setWork] = useState<WorkShown | null>(null);
  const search = usePlanSearch(plan.id, open);
  useEffect(() => {
    let current = true;
    open?.room.work(opened).then((found) => current && setWork(found), wrong);
    return () => {
      current = false;
    };
  }, [open, opened]);
  return (
    <Frame stage="Gather" plan={plan} search={search} controls={<PlanTurns planId={plan.id} open={open} />}>
      <div className="h-full overflow-auto">
        <div className="mx-auto max-w-[1240px] px-8 pt-6 pb-10">
          <GatherTabs planId={plan.id} current="Clean up" />
          {error ? (
            <p role="alert" className="mt-6 text-madder">
              {error}
            </p>
          ) : open && work ? (
            <Work
              planId={plan.id}
              open={open}
              work={work}
              onMore={(id, count) => setOpened((o) => ({ ...o, [id]: count }))}
            />
          ) : (
            <p role="status" className="mt-6 text-soft">
              Looking through the plan …
            </p>
          )}
        </div>
      </div>
    </Frame>
  );
}

function Work({
  planId,
  open,
  work,
  onMore,
}: {
  planId: string;
  open: OpenRoom;
  work: WorkShown;
  onMore: (id: string, count: number) => void;
}) {
  const [chosen, setChosen] = useState<string | null>(null);
  const groups = work.groups.filter((g) => g.count + g.aside > 0);
  const group = groups.find((g) => g.id === chosen) ?? groups.find((g) => g.count > 0) ?? groups[0] ?? null;
  return (
    <div className="mt-6 grid grid-cols-[270px_minmax(0,1fr)] gap-9">
      <nav aria-label="Kinds of findings">
        {SEVERITY.map(([severity, title, dot]) => {
          const kinds = groups.filter((g) => g.severity === severity);
          if (kinds.length === 0) return null;
          return (
            <section key={severity} className="mb-4" aria-label={title}>
              <h2 className="flex items-center gap-2 px-3 text-[13.5px] text-soft">
                <span className={`size-2 rounded-full ${dot}`} aria-hidden />
                {title}
              </h2>
              <ul className="mt-1">
                {kinds.map((g) => (
                  <li key={g.id}>
                    <button
                      type="button"
                      aria-current={g.id === group?.id ? 'true' : undefined}
                      onClick={() => setChosen(g.id)}
                      className={`flex w-full items-baseline gap-2 rounded-md px-3 py-1 text-left ${g.id === group?.id ? 'bg-ink text-paper' : g.count === 0 ? 'text-soft hover:bg-wash' : 'hover:bg-wash'}`}
                    >
                      <span className="min-w-0 flex-1 truncate">{g.title}</span>
                      <span className="shrink-0 text-[14px]">{g.count === 0 ? 'aside' : g.count}</span>
                    </button>
                  </li>
                ))}
              </ul>
            </section>
          );
        })}
        <Required planId={planId} open={open} />
      </nav>
      {group === null ? (
        <p className="text-soft">Nothing to mend: the checks find nothing in this plan.</p>
      ) : (
        <GroupView key={group.id} planId={planId} open={open} group={group} onMore={onMore} />
      )}
    </div>
  );
}

function GroupView({
  planId,
  open,
  group,
  onMore,
}: {
  planId: string;
  open: OpenRoom;
  group: Group;
  onMore: (id: string, count: number) => void;
}) {
  const { busy, change } = usePlanChange(planId);
  const { aside } = open.head;
  const book = open.head.codeFields.find((f) => `code.${f.id}` === group.field || f.id === group.field) ?? null;
  const count = group.count === 1 ? 'one' : `all ${group.count}`;
  const mend = (keys: string[] | null, id: string, answer: string, words: string) =>
    void change((room) => room.mend(group.id, keys, id, answer), words);
  const putAside = (keys: string[]) =>
    void change(
      { do: 'setPlan', settings: { aside: [...aside, ...keys] } },
      `Leave as it is: ${group.title}${keys.length > 1 ? `, ${keys.length}` : ''}`,
    );
  const bringBack = () =>
    void change(
      { do: 'setPlan', settings: { aside: aside.filter((k) => !k.startsWith(`${group.id} `) && k !== group.id) } },
      `Look again at: ${group.title}`,
    );
  const asideAll = async () => putAside(await open.room.workKeys(group.id));
  const bulk = group.forAll.filter((m) => m.asks !== 'one of these');
  return (
    <section aria-labelledby="kind" className="min-w-0">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2">
        <h2 id="kind" className="font-serif text-[22px] font-semibold">
          {group.title}
        </h2>
        <span className="text-soft">{group.count}</span>
        {group.count > 1 && (
          <button
            type="button"
            className="ml-auto text-[14.5px] text-soft hover:text-ink hover:underline"
            disabled={busy}
            onClick={() => void asideAll()}
          >
            Leave {count} as they are
          </button>
        )}
        {group.aside > 0 && (
          <button type="button" className="text-[14.5px] text-kelp hover:underline" disabled={busy} onClick={bringBack}>
            {group.aside} left as {group.aside === 1 ? 'it is' : 'they are'}: look again
          </button>
        )}
      </div>
      {group.about && <p className="mt-1 text-soft">{group.about}</p>}
      {group.count > 1 && bulk.length > 0 && (
        <div className="mt-3 flex flex-wrap items-center gap-2 rounded-lg bg-wash px-3 py-2">
          {bulk.map((m) => (
            <MendControl
              key={m.id}
              mend={m}
              open={open}
              book={book}
              busy={busy}
              all={group.count}
              onDo={(answer) => mend(null, m.id, answer, `${m.words}: ${group.count} activities`)}
            />
          ))}
        </div>
      )}
      <ul className="mt-3 divide-y divide-line border-y border-line">
        {group.items.map((item) => (
          <li key={item.key} className="py-1.5" data-item={item.refs.join(' ')}>
            <div className="flex flex-wrap items-center gap-x-3 gap-y-1.5">
              <ItemHead planId={planId} item={item} />
              {item.mends.map((m) => (
                <MendControl
                  key={m.id}
                  mend={m}
                  open={open}
                  book={book}
                  busy={busy}
                  onDo={(answer) => mend([item.key], m.id, answer, `${m.words}: ${item.refs.join(', ')}`)}
                />
              ))}
              <button
                type="button"
                className="px-1 text-[14.5px] text-soft hover:text-ink hover:underline"
                disabled={busy}
                onClick={() => putAside([item.key])}
              >
                {group.code === 'sameNameAndParent' ? 'They are not the same' : 'Leave it'}
              </button>
            </div>
            {item.words && <p className="text-[14.5px] text-soft">{item.words}</p>}
            {group.code === 'sameNameAndParent' && (
              <Alike
                refs={item.refs}
                open={open}
                busy={busy}
                onMerge={(keep) => mend([item.key], 'merge', keep, `Merge ${item.refs.join(' and ')} into ${keep}`)}
                onKeep={(keep) => mend([item.key], 'keep', keep, `Keep only ${keep} of ${item.refs.join(', ')}`)}
              />
            )}
          </li>
        ))}
        {group.count === 0 && <li className="py-3 text-soft">Nothing is left to do here.</li>}
      </ul>
      {group.count > group.items.length && (
        <button type="button" className="quiet mt-3" onClick={() => onMore(group.id, group.items.length + 40)}>
          Show more of the {group.count - group.items.length} others
        </button>
      )}
    </section>
  );
}

function ItemHead({ planId, item }: { planId: string; item: Item }) {
  return (
    <>
      {item.refs.slice(0, 4).map((ref) => (
        <Link
          key={ref}
          href={`/plans/${planId}/structure?ref=${encodeURIComponent(ref)}`}
          className="min-w-12 shrink-0 font-narrow text-kelp hover:underline"
        >
          {ref}
        </Link>
      ))}
      <span className="min-w-40 flex-1 truncate" title={item.name}>
        <span className="font-semibold">{item.name}</span>
        <span className="ml-3 text-[14px] text-soft">{item.dates}</span>
      </span>
    </>
  );
}

/** Which fields every activity must have filled. */
function Required({ planId, open }: { planId: string; open: OpenRoom }) {
  const { change } = usePlanChange(planId);
  const { required } = open.head;
  const fields = requirableFields(open.head);
  const names = fields.filter((f) => required.includes(f.id)).map((f) => f.name);
  const toggle = (id: string, name: string) =>
    void change(
      {
        do: 'setPlan',
        settings: { required: required.includes(id) ? required.filter((r) => r !== id) : [...required, id] },
      },
      `${required.includes(id) ? 'Do not require' : 'Require'} ${name}`,
    );
  return (
    <section className="mt-6 border-t border-line px-3 pt-3" aria-label="Required cells">
      <p className="text-[14px] text-soft">Every activity must have</p>
      <Popover>
        <PopoverButton className="border-b border-kelp/50 text-left font-semibold text-kelp">
          {names.length === 0 ? 'nothing in particular' : names.join(', ')}
        </PopoverButton>
        <PopoverPanel anchor={{ to: 'bottom start', gap: 6 }} className="panel max-h-96! w-64 overflow-auto p-3!" focus>
          {fields.map((f) => (
            <label key={f.id} className="flex items-center gap-2 rounded px-1 py-0.5 hover:bg-wash">
              <input
                type="checkbox"
                className="size-4 accent-kelp"
                checked={required.includes(f.id)}
                onChange={() => toggle(f.id, f.name)}
              />
              {f.name}
            </label>
          ))}
        </PopoverPanel>
      </Popover>
    </section>
  );
}
