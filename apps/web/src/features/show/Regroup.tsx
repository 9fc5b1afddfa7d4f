'use client';
import type { Brief } from '@clembo/scene/brief';
import { useEffect, useState } from 'react';
import { Sheet } from '@/ui/Sheet';
import { wrong } from '@/ui/Toasts';
import type { OpenRoom } from '@/workers/planRoom';
import { type Preview, Previews } from './Previews';

/** This page in other groups, as small live pages: one click regroups it. */
export function Regroup({
  open,
  brief,
  onTake,
  onClose,
}: {
  open: OpenRoom;
  brief: Brief;
  onTake: (change: Partial<Brief>) => void;
  onClose: () => void;
}) {
  const [list, setList] = useState<(Preview & { change: Partial<Brief> })[] | null>(null);
  useEffect(() => {
    open.room.regroupings(brief).then(
      (ways) =>
        setList(
          ways.map(({ words, change }) => ({
            key: words,
            name: words[0]!.toUpperCase() + words.slice(1),
            change: change as Partial<Brief>,
            brief: { ...brief, ...change } as Brief,
          })),
        ),
      wrong,
    );
  }, [open, brief]);
  return (
    <Sheet title="Regroup this page" note="The same page in other lanes" onClose={onClose}>
      {list === null ? (
        <p role="status">Looking at the plan …</p>
      ) : (
        <Previews
          open={open}
          list={list}
          none="On a page of this size none of its groupings can be read. Choose a larger page, or show less."
          onTake={(p) => {
            onTake(list.find((x) => x.key === p.key)!.change);
            onClose();
          }}
        />
      )}
    </Sheet>
  );
}
