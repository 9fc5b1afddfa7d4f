'use client';
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { MoreHorizontal } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { ask } from '@/ui/ask';
import { Frame } from '@/ui/Frame';
import { Pick } from '@/ui/Pick';
import { useRemoval } from '@/ui/removal';
import { wrong } from '@/ui/Toasts';
import { TakeIn } from './TakeIn';

/** So few plans need no looking for. */
const FEW = 6;

interface PlanCard {
  id: string;
  name: string;
  edition: string;
  version: number;
  activities: number;
  span: string;
  changed: string;
}

interface BegunIntake {
  id: string;
  source: string;
  when: string;
  /** The plan that it is to refresh. */
  target: string | null;
}

/** The way in: the plans there are, what was begun, and a place for the next file or paste. */
export function Gather({ plans, begun }: { plans: PlanCard[]; begun: BegunIntake[] }) {
  const { remove, isGone } = useRemoval('/api/plans');
  const [text, setText] = useState('');
  const [order, setOrder] = useState<'changed' | 'name'>('changed');
  const wanted = text.trim().toLowerCase();
  const there = plans.filter((p) => !isGone(p.id) && p.name.toLowerCase().includes(wanted));
  const shown =
    order === 'name' ? [...there].sort((a, b) => a.name.localeCompare(b.name, undefined, { numeric: true })) : there;
  const names = plans.map((p) => p.name);
  const isShared = (name: string) => names.indexOf(name) !== names.lastIndexOf(name);

  return (
    <Frame stage="Gather" plan={null}>
      <div className="h-full overflow-auto">
        <div className="mx-auto grid max-w-[1240px] grid-cols-[minmax(270px,370px)_minmax(0,1fr)] gap-9 px-8 py-9">
          <div>
            <TakeIn />
            <Begun intakes={begun} />
          </div>
          <section aria-labelledby="plans">
            <div className="flex items-baseline gap-4">
              <h1 id="plans" className="font-serif text-[26px] font-semibold">
                Your plans
              </h1>
              <span className="ml-auto flex items-center gap-2">
                <Link href="/starters" className="quiet py-1">
                  From a starter
                </Link>
                <SketchOne />
              </span>
              {plans.length > FEW && (
                <span className="flex items-center gap-3">
                  <input
                    aria-label="Plans that hold"
                    placeholder="Plans that hold …"
                    value={text}
                    onChange={(e) => setText(e.target.value)}
                    className="w-44 rounded-md border border-line bg-paper px-2.5 py-1"
                  />
                  <Pick
                    label="by"
                    value={order}
                    options={[
                      ['changed', 'last change'],
                      ['name', 'name'],
                    ]}
                    onChange={(v) => setOrder(v as typeof order)}
                  />
                </span>
              )}
            </div>
            {plans.length > 0 && shown.length === 0 ? (
              <p className="mt-4 text-soft">No plan by that name.</p>
            ) : shown.length === 0 ? (
              <p className="mt-4 max-w-md text-soft">
                There are none yet. Take in a file at the left, or start again with{' '}
                <code className="rounded bg-wash px-1">npm start -- --fresh</code> to get the demo plans.
              </p>
            ) : (
              <ul className="mt-4 divide-y divide-line overflow-hidden rounded-xl border border-line bg-paper">
                {shown.map((p) => (
                  <PlanRow key={p.id} plan={p} told={isShared(p.name)} onDelete={() => remove(p.id, p.name)} />
                ))}
              </ul>
            )}
          </section>
        </div>
      </div>
    </Frame>
  );
}

/** Begins a plan with nothing, to be drawn. */
function SketchOne() {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const begin = () => {
    setBusy(true);
    ask<{ planId: string }>('/api/plans', { method: 'POST', json: { name: 'New sketch', from: null } }).then(
      ({ planId }) => router.push(`/plans/${planId}/sketch`),
      (error) => {
        setBusy(false);
        wrong(error);
      },
    );
  };
  return (
    <button type="button" className="quiet py-1" disabled={busy} onClick={begin}>
      Sketch one
    </button>
  );
}

/** What was taken in and not yet made a plan. */
function Begun({ intakes }: { intakes: BegunIntake[] }) {
  const [gone, setGone] = useState<string[]>([]);
  const shown = intakes.filter((i) => !gone.includes(i.id));
  if (shown.length === 0) return null;
  const letGo = (id: string) => {
    setGone((g) => [...g, id]);
    ask(`/api/intakes/${id}`, { method: 'DELETE' }).catch((error) => {
      setGone((g) => g.filter((other) => other !== id));
      wrong(error);
    });
  };
  return (
    <section aria-labelledby="begun" className="mt-8">
      <h2 id="begun" className="font-semibold">
        Read, and not yet a plan
      </h2>
      <ul className="mt-2 divide-y divide-line">
        {shown.map((i) => (
          <li key={i.id} className="flex items-center gap-3 py-1.5">
            <Link href={`/intake/${i.id}`} className="min-w-0 truncate underline underline-offset-2">
              {i.source}
            </Link>
            {i.target && <span className="shrink-0 truncate text-[14px] text-soft">for {i.target}</span>}
            <span className="mr-auto shrink-0 text-[14px] text-soft">{i.when}</span>
            <button
              type="button"
              className="quiet shrink-0 py-0.5 whitespace-nowrap"
              aria-label={`Let go of ${i.source}`}
              onClick={() => letGo(i.id)}
            >
              Let go
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** `told`: another plan has the same name, so that only the time tells them apart. */
function PlanRow({ plan, told, onDelete }: { plan: PlanCard; told: boolean; onDelete: () => void }) {
  const [name, setName] = useState(plan.name);
  const [version, setVersion] = useState(plan.version);
  const [renaming, setRenaming] = useState(false);
  const rename = (wanted: string) => {
    setRenaming(false);
    const text = wanted.trim();
    if (text === '' || text === name) return;
    const before = name;
    setName(text);
    const json = { version, command: { do: 'setPlan', settings: { name: text } } };
    ask<{ version: number }>(`/api/plans/${plan.id}`, { method: 'PATCH', json }).then(
      (done) => setVersion(done.version),
      (error) => {
        setName(before);
        wrong(error);
      },
    );
  };
  return (
    <li className="group flex items-center gap-4 px-5 py-4 hover:bg-wash">
      <div className="min-w-0 flex-1">
        {renaming ? (
          <input
            autoFocus
            defaultValue={name}
            aria-label="Name of the plan"
            className="w-full rounded border border-line bg-paper px-2 py-0.5 text-[18px]"
            onBlur={(e) => rename(e.target.value)}
            onKeyDown={(e) => {
              if (e.key === 'Enter') rename(e.currentTarget.value);
              if (e.key === 'Escape') setRenaming(false);
            }}
          />
        ) : (
          <Link href={`/plans/${plan.id}/show`} className="block truncate text-[18px] font-semibold">
            {name}
          </Link>
        )}
        <p className="truncate text-soft">
          {plan.activities} activities · {plan.span}
        </p>
        <p className="truncate text-[14px] text-soft">
          {plan.edition} · <span className={told ? 'font-semibold text-ink' : ''}>changed {plan.changed}</span>
        </p>
      </div>
      <Link href={`/plans/${plan.id}/gather`} className="quiet">
        Refresh
      </Link>
      <Link href={`/plans/${plan.id}/structure`} className="quiet">
        Structure
      </Link>
      <Link href={`/plans/${plan.id}/show`} className="quiet">
        Show
      </Link>
      <Menu>
        <MenuButton className="rounded p-1 hover:bg-line" aria-label={`More for ${name}`}>
          <MoreHorizontal size={18} />
        </MenuButton>
        <MenuItems anchor="bottom end" className="panel w-40">
          <MenuItem>
            <button type="button" className="choice w-full" onClick={() => setRenaming(true)}>
              Rename
            </button>
          </MenuItem>
          <MenuItem>
            <button type="button" className="choice w-full" onClick={onDelete}>
              Delete
            </button>
          </MenuItem>
        </MenuItems>
      </Menu>
    </li>
  );
}
