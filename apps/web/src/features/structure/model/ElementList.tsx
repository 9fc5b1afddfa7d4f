'use client';
import type { Condition, SelectField } from '@clembo/core';
import { selectFields } from '@clembo/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { Plus, X } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { wrong } from '@/ui/Toasts';
import type { OpenRoom } from '@/workers/planRoom';

const FIRST = ['element.name', 'element.class', 'element.type', 'element.storey'];
const ROW = 28;

interface Props {
  open: OpenRoom;
  fields: readonly SelectField[];
  where: Condition;
  chosen: ReadonlySet<number>;
  onChoose: (elements: readonly number[], more: boolean) => void;
  onAll: (where: Condition) => void;
  onPaste: (field: string, key: string, table: string[][]) => void;
  onFill: (field: string, from: string, characters: number | null) => void;
}

/** Elements as a list, with any property as a column; a click on a value chooses all that have it. */
export function ElementList({ open, fields, where, chosen, onChoose, onAll, onPaste, onFill }: Props) {
  const [columns, setColumns] = useState(FIRST);
  const [elements, setElements] = useState<number[]>([]);
  const [cells, setCells] = useState<string[][]>([]);
  const [sort, setSort] = useState<{ column: number; down: boolean } | null>(null);
  const [pasting, setPasting] = useState(false);
  const all = selectFields({ codeFields: open.head.codeFields, effortDay: null, fields });
  const names = new Map(all.map((f) => [f.id, f.name]));
  useEffect(() => {
    let current = true;
    void (async () => {
      const found = await open.room.elementsWhere(where);
      const texts = await open.room.elementCells(found, columns);
      if (!current) return;
      setElements(found);
      setCells(texts);
    })().catch(wrong);
    return () => {
      current = false;
    };
  }, [open, where, columns]);
  const order = useMemo(() => {
    const list = elements.map((_, k) => k);
    if (!sort) return list;
    const compare = new Intl.Collator(undefined, { numeric: true }).compare;
    return list.sort(
      (a, b) => compare(cells[a]?.[sort.column] ?? '', cells[b]?.[sort.column] ?? '') * (sort.down ? -1 : 1) || a - b,
    );
  }, [elements, cells, sort]);
  const scroll = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: order.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => ROW,
    overscan: 12,
  });
  // What is chosen in the model is brought to sight.
  const [first] = chosen;
  const at = first === undefined ? -1 : order.findIndex((k) => elements[k] === first);
  useEffect(() => {
    if (at >= 0) rows.scrollToIndex(at, { align: 'auto' });
  }, [at, rows]);
  const grid = { gridTemplateColumns: `repeat(${columns.length}, minmax(120px, 1fr)) 34px` };
  const last = useRef(0);
  const choose = (position: number, e: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) => {
    if (e.shiftKey) {
      const [from, to] = [Math.min(last.current, position), Math.max(last.current, position)];
      onChoose(
        order.slice(from, to + 1).map((k) => elements[k]!),
        true,
      );
      return;
    }
    last.current = position;
    onChoose([elements[order[position]!]!], e.ctrlKey || e.metaKey);
  };
  return (
    <div className="flex h-full min-h-0 flex-col rounded-md border border-line bg-paper">
      <div className="grid border-b border-line text-[13.5px] font-semibold" style={grid}>
        {columns.map((id, k) => (
          <div key={id} className="flex min-w-0 items-center gap-1 px-2 py-1">
            <button
              type="button"
              className="min-w-0 flex-1 truncate text-left hover:text-kelp"
              title="Sort by it"
              onClick={() =>
                setSort((s) =>
                  s?.column === k ? (s.down ? null : { column: k, down: true }) : { column: k, down: false },
                )
              }
            >
              {names.get(id) ?? id}
              {sort?.column === k && (sort.down ? ' ↓' : ' ↑')}
            </button>
            {columns.length > 1 && (
              <button
                type="button"
                aria-label={`Without the column ${names.get(id) ?? id}`}
                className="rounded text-soft hover:bg-line"
                onClick={() => {
                  setSort(null);
                  setColumns((c) => c.filter((x) => x !== id));
                }}
              >
                <X size={12} />
              </button>
            )}
          </div>
        ))}
        <label className="relative flex items-center justify-center text-soft hover:text-kelp" title="Another column">
          <Plus size={15} aria-hidden />
          <select
            aria-label="Another column"
            value=""
            className="absolute inset-0 cursor-pointer opacity-0"
            onChange={(e) => setColumns((c) => [...c, e.target.value])}
          >
            <option value="">another column</option>
            {all
              .filter((f) => !columns.includes(f.id))
              .map((f) => (
                <option key={f.id} value={f.id}>
                  {f.name}
                </option>
              ))}
          </select>
        </label>
      </div>
      <div ref={scroll} className="min-h-0 flex-1 overflow-auto">
        <div
          role="grid"
          aria-label="Elements"
          aria-rowcount={order.length}
          style={{ height: rows.getTotalSize(), position: 'relative' }}
        >
          {rows.getVirtualItems().map((item) => {
            const k = order[item.index]!;
            const element = elements[k]!;
            return (
              <div
                key={element}
                role="row"
                aria-selected={chosen.has(element)}
                data-element={element}
                className={`absolute inset-x-0 grid items-center border-b border-line/60 text-[13.5px] ${chosen.has(element) ? 'bg-marigold/20' : 'hover:bg-wash'}`}
                style={{ ...grid, height: ROW, transform: `translateY(${item.start}px)` }}
                onClick={(e) => choose(item.index, e)}
                onKeyDown={() => {}}
              >
                {columns.map((id, c) => (
                  <span key={id} role="gridcell" className="min-w-0 truncate px-2" title={cells[k]?.[c]}>
                    <button
                      type="button"
                      className="max-w-full truncate hover:text-kelp hover:underline"
                      title="Double click: all with this value"
                      onDoubleClick={() =>
                        onAll({ match: 'all', tests: [{ field: id, is: 'is', values: [cells[k]?.[c] ?? ''] }] })
                      }
                    >
                      {cells[k]?.[c]}
                    </button>
                  </span>
                ))}
              </div>
            );
          })}
        </div>
      </div>
      <div className="flex items-center gap-3 border-t border-line px-2 py-1 text-[13px] text-soft">
        <span>
          {order.length} elements · {chosen.size} chosen · double click on a value: all with it
        </span>
        {open.head.codeFields.length > 0 && (
          <button type="button" className="quiet ml-auto px-2! py-0.5!" onClick={() => setPasting((v) => !v)}>
            Give codes
          </button>
        )}
      </div>
      {pasting && (
        <GiveCodes open={open} fields={all} onPaste={onPaste} onFill={onFill} onClose={() => setPasting(false)} />
      )}
    </div>
  );
}

/** Codes for elements: pasted as two columns, a key that elements have and the code, or taken from what they say. */
function GiveCodes({
  open,
  fields,
  onPaste,
  onFill,
  onClose,
}: {
  open: OpenRoom;
  fields: readonly SelectField[];
  onPaste: Props['onPaste'];
  onFill: Props['onFill'];
  onClose: () => void;
}) {
  const [text, setText] = useState('');
  const [key, setKey] = useState('element.identifier');
  const [from, setFrom] = useState('element.classification');
  const [characters, setCharacters] = useState('');
  const [field, setField] = useState(open.head.codeFields[0]!.id);
  const table = text
    .split(/\r?\n/)
    .map((line) => line.split('\t').map((c) => c.trim()))
    .filter((row) => row.some((c) => c !== ''));
  const select = 'rounded border border-line bg-paper px-1.5 py-0.5';
  const choice = (label: string, value: string, onChange: (v: string) => void) => (
    <select aria-label={label} className={select} value={value} onChange={(e) => onChange(e.target.value)}>
      {fields.map((f) => (
        <option key={f.id} value={f.id}>
          {f.name}
        </option>
      ))}
    </select>
  );
  const count = characters.trim() === '' ? null : Number(characters);
  return (
    <div className="max-h-64 space-y-2 overflow-auto border-t border-line px-3 py-2 text-[14px]">
      <p>
        Give elements a{' '}
        <select
          aria-label="Code field to fill"
          className={select}
          value={field}
          onChange={(e) => setField(e.target.value)}
        >
          {open.head.codeFields.map((f) => (
            <option key={f.id} value={f.id}>
              {f.name}
            </option>
          ))}
        </select>
      </p>
      <form
        className="flex flex-wrap items-center gap-1.5"
        onSubmit={(e) => {
          e.preventDefault();
          onFill(field, from, count);
          onClose();
        }}
      >
        from their {choice('Field to take it from', from, setFrom)}, its first{' '}
        <input
          aria-label="How many characters"
          inputMode="numeric"
          placeholder="all"
          value={characters}
          onChange={(e) => setCharacters(e.target.value.replace(/\D/g, '').slice(0, 3))}
          className={`${select} w-12`}
        />{' '}
        characters
        <button type="submit" className="quiet px-2! py-0.5!">
          Take it from there
        </button>
      </form>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          onPaste(field, key, table);
          onClose();
        }}
      >
        or by a paste of two columns, their {choice('Key', key, setKey)} and the code, in any order:
        <textarea
          aria-label="Codes to paste"
          rows={3}
          value={text}
          onChange={(e) => setText(e.target.value)}
          className="mt-1.5 w-full rounded border border-line bg-paper px-2 py-1 font-narrow text-[14px]"
        />
        <div className="mt-1 flex gap-2">
          <button type="submit" className="action py-1!" disabled={table.length === 0}>
            Code by {table.length} {table.length === 1 ? 'row' : 'rows'}
          </button>
          <button type="button" className="quiet py-1!" onClick={onClose}>
            Leave it
          </button>
        </div>
      </form>
    </div>
  );
}
