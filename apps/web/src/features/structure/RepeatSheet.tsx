'use client';
import { useEffect, useState } from 'react';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import { Sheet } from '@/ui/Sheet';
import { wrong } from '@/ui/Toasts';
import type { Repeated, Repeating } from '@/workers/answers/repeated';
import type { OpenRoom } from '@/workers/planRoom';

/** A building of so many floors is what is offered first. */
const FLOORS = ['Ground floor', 'First floor', 'Second floor', 'Third floor', 'Fourth floor'];

/** The chosen rows made again for each of several units: floors, houses, sections of a line. */
export function RepeatSheet({
  planId,
  open,
  refs,
  onClose,
}: {
  planId: string;
  open: OpenRoom;
  refs: string[];
  onClose: () => void;
}) {
  const { busy, change } = usePlanChange(planId);
  const zoned = open.head.lines.filter((l) => l.zones.length > 0);
  const [line, setLine] = useState<string | null>(zoned[0]?.id ?? null);
  const [text, setText] = useState((zoned[0]?.zones.map((z) => z.name) ?? FLOORS).join('\n'));
  const [name, setName] = useState('Floors');
  const [group, setGroup] = useState<Repeating['group']>('unit');
  const [follow, setFollow] = useState(true);
  const [answer, setAnswer] = useState<{ to: string; found: Repeated | null } | null>(null);
  const units = text.split('\n').map((u) => u.trim());
  const asked: Repeating = { refs, line, units: units.filter(Boolean), name, group, follow };
  const key = JSON.stringify(asked);
  const found = answer?.to === key ? answer.found : null;
  useEffect(() => {
    let current = true;
    open.room.repeated(JSON.parse(key) as Repeating).then((r) => current && setAnswer({ to: key, found: r }), wrong);
    return () => {
      current = false;
    };
  }, [open, key]);
  const choose = (id: string | null) => {
    setLine(id);
    const own = open.head.lines.find((l) => l.id === id);
    setText((own ? own.zones.map((z) => z.name) : FLOORS).join('\n'));
  };
  const make = async () => {
    if (!found) return;
    const words = `Repeat ${found.works} ${found.works === 1 ? 'activity' : 'activities'} in ${asked.units.length} units`;
    if (await change(found.command, words)) onClose();
  };
  return (
    <Sheet title="The same work in each unit" note="floors, houses, sections of a line" onClose={onClose}>
      <div className="grid max-w-[760px] gap-5 sm:grid-cols-2">
        <div>
          <label className="block">
            <span className="text-soft">The units lie on</span>
            <select
              aria-label="Line of the units"
              value={line ?? ''}
              onChange={(e) => choose(e.target.value || null)}
              className="mt-1 block w-full rounded-md border border-line bg-paper px-2 py-1"
            >
              {zoned.map((l) => (
                <option key={l.id} value={l.id}>
                  the zones of {l.name || l.id}
                </option>
              ))}
              <option value="">a new line, floor by floor</option>
            </select>
          </label>
          {line === null && (
            <label className="mt-3 block">
              <span className="text-soft">called</span>
              <input
                aria-label="Name of the new line"
                value={name}
                maxLength={200}
                onChange={(e) => setName(e.target.value)}
                className="mt-1 block w-full rounded-md border border-line bg-paper px-2 py-1"
              />
            </label>
          )}
          <fieldset className="mt-4 space-y-1.5">
            <legend className="text-soft">Grouped by</legend>
            {(
              [
                ['unit', 'unit: all works of a floor together'],
                ['work', 'work: all floors of a work together'],
              ] as const
            ).map(([value, words]) => (
              <label key={value} className="flex items-center gap-2">
                <input type="radio" name="group" checked={group === value} onChange={() => setGroup(value)} />
                {words}
              </label>
            ))}
          </fieldset>
          <label className="mt-4 flex items-start gap-2">
            <input type="checkbox" className="mt-1" checked={follow} onChange={(e) => setFollow(e.target.checked)} />
            each work goes on in the next unit when it is done in one, and is linked so
          </label>
        </div>
        <label className="block">
          <span className="text-soft">Units, one a line, in the order of the work</span>
          <textarea
            aria-label="Units"
            value={text}
            rows={10}
            onChange={(e) => setText(e.target.value)}
            className="mt-1 block w-full rounded-md border border-line bg-paper px-2 py-1"
          />
        </label>
      </div>
      <div className="mt-5 flex items-center gap-4">
        <button type="button" className="action" disabled={busy || !found} onClick={() => void make()}>
          {found ? `Make ${found.activities} activities` : 'Make them'}
        </button>
        <p role="status" className="text-soft">
          {found
            ? `${found.works} ${found.works === 1 ? 'activity' : 'activities'} in each of ${found.activities / found.works} units; what is chosen becomes that of the first.`
            : line === null
              ? 'Name at least one unit, and choose rows that are no empty groups.'
              : 'None of these is a zone of the line.'}
        </p>
      </div>
    </Sheet>
  );
}
