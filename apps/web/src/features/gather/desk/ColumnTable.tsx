import { fieldById } from '@clembo/formats/columns';
import { formatDay } from '@clembo/scene/dates';
import { columnTitle } from './columnTitle';
import { ColumnDetails } from './ColumnDetails';
import { ColumnPick } from './ColumnPick';
import type { Intake } from './useIntake';

/** The columns with what they mean, how they were read, and their first values. */
export function ColumnTable({ intake }: { intake: Intake }) {
  const { view, map, changeMap, changeColumn } = intake;
  const { samples, part } = view;
  return (
    <div className="overflow-x-auto rounded-xl border border-line bg-paper">
      <table className="w-max min-w-full border-collapse text-[14px]">
        <thead>
          <tr>
            <th className="w-10 border-b border-line" aria-label="Row" />
            {map.columns.map((meaning, c) => {
              const title = columnTitle(intake, c);
              const reason = part.reasons.find((r) => r.column === c);
              return (
                <th
                  // biome-ignore lint: columns have no other name
                  key={c}
                  scope="col"
                  className={`min-w-32 border-b border-l border-line p-2 text-left align-top font-normal ${meaning.as === 'skip' ? 'bg-wash' : ''}`}
                >
                  <span className="block max-w-56 truncate pb-1 text-soft" title={title}>
                    {title}
                  </span>
                  <ColumnPick column={title} meaning={meaning} onChange={(m) => changeMap(changeColumn(c, m))} />
                  {reason && meaning.as === 'field' && (
                    <p className="mt-1.5 flex items-baseline gap-1.5 rounded bg-marigold/20 px-1.5 py-0.5 text-[13px]">
                      <span>
                        {reason.fit} of {reason.of} are dates: {fieldById(meaning.field)?.label.toLowerCase()}?
                      </span>
                      <button
                        type="button"
                        className="font-semibold text-kelp underline underline-offset-2"
                        aria-label={`Yes, ${title} is the ${fieldById(meaning.field)?.label.toLowerCase()}`}
                        onClick={() => changeMap({})}
                      >
                        Yes
                      </button>
                    </p>
                  )}
                  <ColumnDetails intake={intake} column={c} />
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>
          {samples.map(({ row, cells }) => (
            <tr key={row} className="align-top">
              <td className="border-t border-line/60 px-2 py-1 text-right text-soft">{row}</td>
              {cells.map((cell, c) => (
                // biome-ignore lint: columns have no other name
                <td
                  key={c}
                  className={`max-w-64 border-t border-l border-line/60 px-2 py-1 ${map.columns[c]?.as === 'skip' ? 'bg-wash text-soft' : ''}`}
                >
                  <span className="block truncate" title={cell.text}>
                    {cell.text}
                  </span>
                  {cell.day !== undefined && (
                    <span
                      className={`block truncate font-narrow text-[13px] ${cell.day === null ? 'text-madder' : 'text-soft'}`}
                    >
                      {cell.day === null ? 'not a date' : formatDay(cell.day, 'weekday')}
                    </span>
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
