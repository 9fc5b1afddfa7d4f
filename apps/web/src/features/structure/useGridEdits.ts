'use client';
import type { Command, Looking, RowPlace } from '@clembo/core';
import { editorOf } from '@clembo/formats/typed';
import { useEffect, useRef, useState } from 'react';
import { usePlanChange } from '@/ui/plan/usePlanChange';
import { toast, wrong } from '@/ui/Toasts';
import type { FoundCell } from '@/workers/answers/finding';
import type { LedgerShape, WrongCell } from '@/workers/answers/ledger';
import type { OpenRoom } from '@/workers/planRoom';
import { turnPlan } from '@/workers/planWrites';
import type { Range, Spot } from './grid';

/** Something by reference and field. */
export type ByCell<T> = ReadonlyMap<string, ReadonlyMap<string, T>>;

const put = <T>(map: Map<string, ReadonlyMap<string, T>>, ref: string, field: string, value: T): void => {
  map.set(ref, new Map(map.get(ref)).set(field, value));
};

function byCell<T>(cells: readonly { ref: string; field: string }[], value: (k: number) => T): ByCell<T> {
  const map = new Map<string, Map<string, T>>();
  cells.forEach(({ ref, field }, k) => {
    const own = map.get(ref) ?? new Map<string, T>();
    map.set(ref, own.set(field, value(k)));
  });
  return map;
}

/** Something that is made, and the command that makes it. */
interface Made {
  command: Command;
  ref: string;
}

const DRAWN_WORDS = { indent: 'In:', outdent: 'Out:', up: 'Move', down: 'Move' } as const;

/** Says that an activity with something of its own has become a group, and offers the way back. */
function sayGroup(planId: string, group: string | null): void {
  if (group === null) return;
  toast(group, {
    seconds: 20,
    action: { label: 'Undo', run: () => void turnPlan(planId, true).catch(wrong) },
  });
}

interface Options {
  planId: string;
  open: OpenRoom;
  shape: LedgerShape;
  fields: string[];
  /** The cells that are chosen, and the one that is worked from. */
  range: Range;
  from: Spot;
  /** The activity that is chosen. */
  behind: string | null;
}

/** Everything that is done to the plan in the sheet: typing, filling, pasting, adding, removing, moving. */
export function useGridEdits({ planId, open, shape, fields, range, from, behind }: Options) {
  const { busy, change } = usePlanChange(planId);
  const [wrongs, setWrongs] = useState<ByCell<WrongCell>>(new Map());
  const [pending, setPending] = useState<ByCell<string>>(new Map());

  // What was typed stands in its cells until they show what it has become.
  useEffect(() => setPending((was) => (was.size === 0 ? was : new Map())), [shape]);

  const noteWrong = (found: readonly WrongCell[], cells: readonly { ref: string; field: string }[]) =>
    setWrongs((old) => {
      if (found.length === 0 && old.size === 0) return old;
      const next = new Map(old);
      for (const { ref, field } of cells) {
        const own = next.get(ref);
        if (!own?.has(field)) continue;
        const rest = new Map([...own].filter(([f]) => f !== field));
        if (rest.size === 0) next.delete(ref);
        else next.set(ref, rest);
      }
      for (const w of found) put(next, w.ref, w.field, w);
      return next;
    });

  /** Types texts into cells, all as one change. */
  const type = async (cells: { ref: string; field: string; text: string }[], words?: string) => {
    if (cells.length === 0) return;
    setPending(byCell(cells, (k) => cells[k]!.text));
    const done = await change(
      async (room) => {
        const { command, wrong } = await room.typed(cells);
        noteWrong(wrong, cells);
        return command;
      },
      words ?? (cells.length === 1 ? undefined : `Type into ${cells.length} cells`),
    );
    // What could not be kept stands in its cells, to be kept again.
    if (!done)
      noteWrong(
        cells.map((c) => ({ ...c, why: 'It could not be kept. Press Enter in the cell to try again.' })),
        cells,
      );
    setPending(new Map());
  };
  /** What was added last at the end: more goes behind it, one after the other, however quickly it is typed. */
  const added = useRef<string | null>(null);
  const add = (rows: string[][], into: readonly string[]): Promise<boolean> =>
    change(
      async (room) => {
        const { command, wrong, refs } = await room.added(added.current ?? (await lastRef()), [...into], rows);
        noteWrong(wrong, []);
        added.current = refs.at(-1) ?? null;
        return command;
      },
      rows.length === 1 ? 'Add an activity' : `Add ${rows.length} activities`,
    );
  /** Makes something; gives its reference as soon as that is known, null where it cannot be made. */
  const made = (make: (room: OpenRoom['room']) => Promise<Made | null>, words: string): Promise<string | null> =>
    new Promise((resolve) => {
      const asked = change(async (room) => {
        const found = await make(room);
        resolve(found?.ref ?? null);
        return found?.command ?? null;
      }, words);
      void asked.then(() => resolve(null));
    });
  /** An activity behind all others, with one thing that was typed of it. */
  const addOne = (text: string, field: string): Promise<string | null> =>
    made(async (room) => {
      const { command, wrong, refs } = await room.added(added.current ?? (await lastRef()), [field], [[text]]);
      noteWrong(wrong, []);
      added.current = refs.at(-1) ?? null;
      return command && { command, ref: refs[0]! };
    }, 'Add an activity');
  const lastRef = async (): Promise<string | null> => {
    const refs = await open.room.refsOn(Math.max(0, shape.lines - 50), shape.lines);
    return refs.findLast((r) => r !== '') ?? null;
  };

  /** Links that are there, and one more. */
  const addLink = async (ref: string, field: 'predecessors' | 'successors', text: string) => {
    const there = await open.room.editText(ref, field, '');
    await type([{ ref, field, text: there === '' ? text : `${there}, ${text}` }]);
  };

  const chosenRefs = async (): Promise<string[]> =>
    (await open.room.refsOn(range.top, range.bottom + 1)).filter((r) => r !== '');
  const drawAll = async (what: 'indent' | 'outdent' | 'up' | 'down') => {
    const refs = await chosenRefs();
    // One after the other, since each is told by where the ones before it stand; what goes behind others, from the end.
    for (const ref of what === 'down' || what === 'outdent' ? refs.reverse() : refs) {
      let group: string | null = null;
      const done = await change(async (room) => {
        const found = await room.drawn({ do: what, ref });
        group = found?.group ?? null;
        return found?.command ?? null;
      }, `${DRAWN_WORDS[what]} ${ref}`);
      if (!done) return;
      sayGroup(planId, group);
    }
  };
  /** Moves what is chosen by working days; what follows goes along where that is wanted. */
  const shift = async (days: number, follow: boolean) => {
    const refs = await chosenRefs();
    if (refs.length === 0) return;
    const words = refs.length === 1 ? `Move ${refs[0]}` : `Move ${refs.length} activities`;
    await change(async (room) => {
      const made = await Promise.all(refs.map((ref) => room.drawn({ do: 'shift', ref, days })));
      const commands = made.flatMap((m) => (m ? [m.command] : []));
      if (commands.length === 0) return null;
      const command = commands.length === 1 ? commands[0]! : { do: 'all' as const, commands };
      return follow ? room.withFollowers(command) : command;
    }, words);
  };
  /** Copies of the chosen rows, each behind its own. */
  const duplicate = async (): Promise<string | null> => {
    const refs = await chosenRefs();
    if (refs.length === 0) return null;
    return made(
      async (room) => {
        const found = await room.duplicated(refs);
        return found && { command: found.command, ref: found.refs[0]! };
      },
      refs.length === 1 ? `Duplicate ${refs[0]}` : `Duplicate ${refs.length} rows`,
    );
  };
  /** Carries the chosen rows, or the one that is dragged where it is none of them. */
  const carry = async (ref: string, place: RowPlace, target: string) => {
    const chosen = await chosenRefs();
    const refs = chosen.includes(ref) ? chosen : [ref];
    const words = refs.length === 1 ? `Move ${ref} in the list` : `Move ${refs.length} rows in the list`;
    let group: string | null = null;
    const done = await change(async (room) => {
      const found = await room.carried(refs, place, target);
      group = found?.group ?? null;
      return found?.command ?? null;
    }, words);
    if (done) sayGroup(planId, group);
  };
  /** A milestone behind the chosen row that comes when it ends. */
  const milestone = async (): Promise<string | null> =>
    behind === null ? null : made((room) => room.milestoneBehind(behind), `Add a milestone behind ${behind}`);
  const replace = async (cells: FoundCell[], looking: Looking, by: string) => {
    const texts = await open.room.replaced(cells, looking, by);
    await type(texts, texts.length === 1 ? undefined : `Replace “${looking.text}” in ${texts.length} cells`);
  };
  const remove = async () => {
    const refs = await chosenRefs();
    if (refs.length === 0) return;
    const commands = refs.map((ref) => ({ do: 'removeActivity' as const, ref }));
    await change(
      commands.length === 1 ? commands[0]! : { do: 'all', commands },
      refs.length === 1 ? `Remove ${refs[0]}` : `Remove ${refs.length} activities`,
    );
  };
  const clear = async () => {
    const refs = await open.room.refsOn(range.top, range.bottom + 1);
    const cells = refs.flatMap((ref) =>
      ref === ''
        ? []
        : fields
            .slice(range.left, range.right + 1)
            .flatMap((field) => (editorOf(field) === null || field === 'name' ? [] : [{ ref, field, text: '' }])),
    );
    await type(cells, cells.length === 1 ? undefined : `Clear ${cells.length} cells`);
  };
  const fillDown = async () => {
    const refs = await open.room.refsOn(range.top, range.bottom + 1);
    const [first] = refs;
    if (!first || refs.length < 2) return;
    const columns = fields.slice(range.left, range.right + 1).filter((f) => editorOf(f) !== null);
    const line = (await open.room.lines(range.top, range.top + 1))[0]!;
    const texts = await Promise.all(
      columns.map((field) => {
        const c = fields.indexOf(field);
        return open.room.editText(first, field, c === 0 ? line.name : line.cells[c - 1]!);
      }),
    );
    await type(
      refs.slice(1).flatMap((ref) => (ref === '' ? [] : columns.map((field, k) => ({ ref, field, text: texts[k]! })))),
      `Fill ${refs.length - 1} rows down`,
    );
  };
  const insert = (): Promise<string | null> =>
    made(async (room) => {
      const { command, refs } = await room.added(behind ?? (await lastRef()), ['name'], [['']]);
      return command && { command, ref: refs[0]! };
    }, 'Insert an activity');
  const paste = async (text: string, several: boolean) => {
    const table = text
      .replace(/\r?\n$/, '')
      .split(/\r?\n/)
      .map((line) => line.split('\t'));
    if (table.length === 0) return;
    const into = fields.slice(from.col);
    const refs = await open.room.refsOn(from.row, from.row + table.length);
    // One cell goes into all that are chosen.
    const single = table.length === 1 && table[0]!.length === 1;
    if (single && several) {
      const all = await open.room.refsOn(range.top, range.bottom + 1);
      await type(
        all.flatMap((ref) =>
          ref === ''
            ? []
            : fields.slice(range.left, range.right + 1).map((field) => ({ ref, field, text: table[0]![0]! })),
        ),
      );
      return;
    }
    const cells = table.flatMap((row, k) => {
      const ref = refs[k];
      return ref ? row.slice(0, into.length).map((t, c) => ({ ref, field: into[c]!, text: t })) : [];
    });
    const fresh = table.slice(Math.max(0, shape.lines - from.row));
    if (cells.length > 0) await type(cells, `Paste ${table.length - fresh.length} rows`);
    if (fresh.length > 0) await add(fresh, into);
  };

  return {
    busy,
    change,
    wrongs,
    pending,
    type,
    addOne,
    addLink,
    drawAll,
    shift,
    duplicate,
    carry,
    milestone,
    replace,
    remove,
    clear,
    fillDown,
    insert,
    paste,
    /** What is added next stands behind the last line again. */
    endAdding: () => {
      added.current = null;
    },
    /** Cells that cannot be used as typed show again what they hold. */
    leaveWrongs: () => setWrongs(new Map()),
  };
}
