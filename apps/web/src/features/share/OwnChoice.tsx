'use client';
import type { Brief } from '@clembo/scene/brief';
import { canGroup, type FolioPage } from '@clembo/scene/folio';
import { WherePart } from '@/ui/sentence/WherePart';
import { Pick } from '@/ui/Pick';
import type { OpenRoom } from '@/workers/planRoom';

interface Props {
  page: FolioPage;
  brief: Brief;
  open: OpenRoom;
  onChange: (part: Partial<FolioPage>) => void;
}

/** What a page of a folio shows, and how that is grouped, where it is to differ from its exhibit. */
export function OwnChoice({ page, brief, open, onChange }: Props) {
  const hasFilter = 'where' in brief;
  const grouped = canGroup(brief);
  if (!hasFilter && !grouped) return null;
  const fields: [string, string][] = [
    ['', 'as in its own page'],
    ...(brief.kind === 'timeline' ? [['outline', 'the outline'] as [string, string]] : []),
    ['responsible', 'who is responsible'],
    ...open.head.codeFields.map((f): [string, string] => [f.id, f.name]),
  ];
  return (
    <div className="mt-2 space-y-1.5 text-[14px]">
      {hasFilter && (
        <p>
          <span className="text-soft">It shows </span>
          <WherePart
            open={open}
            where={page.where ?? brief.where}
            act="Show"
            onChange={(where) =>
              onChange({ where: JSON.stringify(where) === JSON.stringify(brief.where) ? null : where })
            }
          />
          {page.where !== null && (
            <button type="button" className="ml-2 text-kelp hover:underline" onClick={() => onChange({ where: null })}>
              as in its own page
            </button>
          )}
        </p>
      )}
      {grouped && (
        <Pick
          label="Grouped by"
          value={page.group ?? ''}
          options={fields}
          onChange={(group) => onChange({ group: group || null })}
        />
      )}
    </div>
  );
}
