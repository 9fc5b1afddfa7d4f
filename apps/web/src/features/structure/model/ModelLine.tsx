import { dayOf, startOfDay } from '@clembo/core/time';
import { editionChoices, editionName } from '@clembo/scene/brief';
import { formatDay } from '@clembo/scene/dates';
import { WherePart } from '@/ui/sentence/WherePart';
import { DatePart } from '@/ui/sentence/DatePart';
import { OnePart } from '@/ui/sentence/ListParts';
import type { ModelBook } from '@/workers/answers/models';
import type { OpenRoom } from '@/workers/planRoom';
import type { Asked } from './useModel';

interface Props {
  open: OpenRoom;
  book: ModelBook;
  asked: Asked;
  /** The day of the status date; null when the plan has none. */
  status: number | null;
  /** A day of null is the status date, or without one the middle of what is built. */
  onAsk: (change: Partial<Omit<Asked, 'day'>> & { day?: number | null }) => void;
}

/** What is looked at, as a sentence whose parts are changed in place. */
export function ModelLine({ open, book, asked, status, onAsk }: Props) {
  const { head } = open;
  const { day, where, colour, compare, beside } = asked;
  return (
    <p className="mt-2 text-[16px] leading-[26px] text-soft" aria-label="What is looked at">
      Elements where{' '}
      <WherePart
        open={open}
        where={where}
        act="Show"
        onChange={(w) => onAsk({ where: w })}
        of={{ fields: book.fields, textsOf: (id) => open.room.elementTexts(id) }}
      />
      , coloured by{' '}
      <OnePart
        part="colour"
        label="Coloured by"
        text={head.codeFields.find((f) => f.id === colour)?.name.toLowerCase() ?? 'one colour'}
        value={colour ?? ''}
        options={[['', 'one colour'], ...head.codeFields.map((f): [string, string] => [f.id, f.name.toLowerCase()])]}
        onChange={(v) => onAsk({ colour: v === '' ? null : v })}
      />
      , as they stand on{' '}
      <DatePart
        part="day"
        label="Date"
        text={formatDay(day, 'long')}
        open={status === null ? 'the middle of it' : 'the status date'}
        moment={startOfDay(day)}
        isFinish={false}
        onChange={(moment) => onAsk({ day: moment === null ? null : dayOf(moment) })}
      />
      {head.editions.length > 0 && (
        <>
          , against{' '}
          <OnePart
            part="compare"
            label="Against"
            text={editionName(compare, head)}
            value={compare ?? ''}
            options={[['', 'nothing'], ...editionChoices(head)]}
            onChange={(v) => onAsk(v === '' ? { compare: null, beside: false } : { compare: v })}
          />
          {compare !== null && (
            <>
              ,{' '}
              <OnePart
                part="beside"
                label="The promise"
                text={beside ? 'side by side' : 'in one picture'}
                value={beside ? 'yes' : 'no'}
                options={[
                  ['no', 'in one picture'],
                  ['yes', 'side by side'],
                ]}
                onChange={(v) => onAsk({ beside: v === 'yes' })}
              />
            </>
          )}
        </>
      )}
      .
    </p>
  );
}
