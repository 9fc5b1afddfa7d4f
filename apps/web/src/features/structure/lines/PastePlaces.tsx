'use client';
import {
  dayOf,
  finishDayOf,
  isoDate,
  type Line,
  type PastedPlaces,
  type PlaceKind,
  placeWords,
  readPastedPlaces,
} from '@clembo/core';
import { useMemo, useState } from 'react';

const ASKS: Record<PlaceKind, string> = {
  stations: 'Names and places (colours, styles), in any order of columns',
  zones: 'Names, from and to (colours, styles), in any order of columns',
  windows: 'Names, from, to, first day and last day, in any order of columns',
};

/** Places pasted from a sheet, looked at before they are taken. */
export function PastePlaces({
  kind,
  unit,
  onTake,
}: {
  kind: PlaceKind;
  unit: string;
  onTake: (found: PastedPlaces) => void;
}) {
  const [text, setText] = useState('');
  const found = useMemo(
    () => (text.trim() === '' ? null : readPastedPlaces(cells(text), kind, unit)),
    [text, kind, unit],
  );
  const list: (Line['stations'][number] | Line['zones'][number] | Line['windows'][number])[] = found?.[kind] ?? [];
  return (
    <div className="mt-3 max-w-2xl rounded-lg border border-line bg-paper p-3">
      <textarea
        autoFocus
        aria-label={ASKS[kind]}
        placeholder={ASKS[kind]}
        rows={4}
        value={text}
        onChange={(e) => setText(e.target.value)}
        className="w-full rounded border border-line bg-paper px-2 py-1 font-narrow text-[14.5px]"
      />
      {found && (
        <>
          <table aria-label="What was read" className="mt-2 text-[14px]">
            <tbody>
              {list.slice(0, 6).map((p, k) => (
                // biome-ignore lint: rows stand where they stand
                <tr key={k}>
                  <td className="pr-4">{p.name || '–'}</td>
                  <td className="pr-4 tabular-nums">
                    {'at' in p ? placeWords(p.at, unit) : `${placeWords(p.from, unit)} to ${placeWords(p.to, unit)}`}
                  </td>
                  {'colour' in p && p.colour && (
                    <td>
                      <span
                        role="img"
                        aria-label={p.colour}
                        className="inline-block size-3 rounded-sm"
                        style={{ background: p.colour }}
                      />
                    </td>
                  )}
                  {'style' in p && p.style && <td className="pl-2 text-soft">{p.style}</td>}
                  {'start' in p && (
                    <td className="tabular-nums">
                      {isoDate(dayOf(p.start))} to {isoDate(finishDayOf(p.finish))}
                    </td>
                  )}
                </tr>
              ))}
            </tbody>
          </table>
          {list.length > 6 && <p className="text-[14px] text-soft">and {list.length - 6} more</p>}
          {found.problems.length > 0 && (
            <ul className="mt-2 text-[14px] text-madder">
              {found.problems.slice(0, 5).map((p) => (
                <li key={p.row}>
                  Row {p.row}: {p.why}
                </li>
              ))}
              {found.problems.length > 5 && <li>and {found.problems.length - 5} more rows that are not read</li>}
            </ul>
          )}
          <button type="button" className="action mt-3" disabled={list.length === 0} onClick={() => onTake(found)}>
            Take {list.length}
          </button>
        </>
      )}
    </div>
  );
}

/** The cells of what is pasted: between tabs, else between semicolons, else between commas that no blank follows. */
function cells(text: string): string[][] {
  const lines = text.split(/\r?\n/).filter((l) => l.trim() !== '');
  const by = lines.some((l) => l.includes('\t')) ? '\t' : lines.some((l) => l.includes(';')) ? ';' : /,(?!\s)/;
  return lines.map((l) => l.split(by));
}
