import { type ColumnMap, CURRENCIES, isMoneyField } from '@clembo/formats/columns';
import { isoDate } from '@clembo/core';
import { DayField, dayOfField } from '@/ui/DayField';
import { Pick } from '@/ui/Pick';
import type { Intake } from './useIntake';

const currencies = new Intl.DisplayNames('en-GB', { type: 'currency' });

/** How the table that is seen is read, as a line whose parts can be changed. */
export function ReadingLine({ intake }: { intake: Intake }) {
  const { view, map, changeMap, correct } = intake;
  const { from } = view.part;
  const headings = map.headerRow === null ? 'none' : String(map.headerRow);
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-2 px-6 pb-3">
      <Pick
        label="Headings"
        value={headings}
        options={[
          ['none', 'no row of headings'],
          ...view.top.map(({ position, row, cells }): [string, string] => [
            String(position),
            position === map.headerRow && map.headerRows > 1
              ? `in rows ${row - map.headerRows + 1} to ${row}`
              : `in row ${row}${
                  cells.some((c) => c !== '')
                    ? `: ${cells
                        .filter((c) => c !== '')
                        .slice(0, 3)
                        .join(', ')
                        .slice(0, 40)}`
                    : ''
                }`,
          ]),
        ]}
        shown={(title) => title.split(':')[0]!}
        onChange={(v) => correct({ headings: v === 'none' ? null : Number(v) })}
      />
      <Pick
        label="Dates"
        value={map.dateOrder ?? 'open'}
        wanted={map.dateOrder === null}
        options={[
          ...(map.dateOrder === null ? [['open', 'day or month first?'] as [string, string]] : []),
          ['dmy', 'day before month'],
          ['mdy', 'month before day'],
          ['ymd', 'year, month, day'],
        ]}
        onChange={(v) => v !== 'open' && changeMap({ dateOrder: v as ColumnMap['dateOrder'] })}
      />
      <Pick
        label="Durations in"
        value={map.durationUnit}
        options={[
          ['day', 'working days'],
          ['week', 'weeks'],
          ['month', 'months'],
          ['hour', 'hours'],
        ]}
        onChange={(v) => changeMap({ durationUnit: v as ColumnMap['durationUnit'] })}
      />
      {map.columns.some((m) => m.as === 'field' && m.field === 'predecessors') && (
        <Pick
          label="Predecessors are"
          value={map.predecessorsBy}
          options={[
            ['position', 'places in the list'],
            ['row', 'rows of the sheet'],
            ['reference', 'references'],
          ]}
          onChange={(v) => changeMap({ predecessorsBy: v as ColumnMap['predecessorsBy'] })}
        />
      )}
      {map.columns.some((m) => m.as === 'field' && isMoneyField(m.field)) && (
        <Pick
          label="Amounts in"
          value={map.currency ?? 'none'}
          options={[
            ['none', 'no currency of their own'],
            ...CURRENCIES.map((code): [string, string] => [code, `${code}: ${currencies.of(code)}`]),
          ]}
          shown={(title) => title.split(':')[0]!}
          onChange={(v) => changeMap({ currency: v === 'none' ? null : v })}
        />
      )}
      <label className="flex items-center gap-2">
        <span className="text-soft">Status date</span>
        <DayField
          label="Status date"
          value={map.statusDay === null ? '' : isoDate(map.statusDay)}
          onChange={(v) => changeMap({ statusDay: dayOfField(v) })}
        />
        {view.statusFrom && map.statusDay !== null && (
          <span className="text-[13px] text-soft">from row {view.statusFrom.row}</span>
        )}
      </label>
      {from === 'last' && (
        <span className="flex items-center gap-2 rounded-full bg-wash px-3 py-0.5 text-[14px]">
          Read as last time
          <button
            type="button"
            className="text-kelp underline underline-offset-2"
            onClick={() => correct({ again: 'guess' })}
          >
            guess again
          </button>
        </span>
      )}
    </div>
  );
}
