'use client';
import { useDroppable } from '@dnd-kit/core';
import type { ReactNode } from 'react';
import type { ModelBook } from '@/workers/answers/models';
import type { OpenRoom } from '@/workers/planRoom';
import { ElementList } from './ElementList';
import { Pictures } from './Pictures';
import type { ModelDeskState } from './useModelDesk';
import { ViewTools } from './ViewTools';

interface Props {
  open: OpenRoom;
  book: ModelBook;
  desk: ModelDeskState;
  /** Something is being carried to it. */
  carrying: boolean;
}

/** The model as a picture or as a list, under what is offered or does not go together. */
export function ModelMiddle({ open, book, desk, carrying }: Props) {
  const { matching, standing, asList, asked, chosen, choose, chooseWhere, acts, look, setLook, framing, setFraming } =
    desk;
  const { modes, setModes, heights, head, bounds, looks, storeys, promised, hover, setHover } = desk;
  const offer = matching?.offers[0];
  const conflict = matching?.conflicts[0];
  const pointed = hover && hover.element >= 0 ? book.elements[hover.element] : null;
  const views = head.buildViews;
  return (
    <div className="flex min-h-0 min-w-0 flex-col">
      {conflict && (
        <Note tone="late">
          {conflict.words}
          {matching!.conflicts.length > 1 && ` · ${matching!.conflicts.length - 1} more such`}
          <button
            type="button"
            className="font-semibold text-kelp hover:underline"
            onClick={() => choose(conflict.elements, false)}
          >
            Choose {conflict.elements.length === 1 ? 'it' : 'them'}
          </button>
        </Note>
      )}
      {offer && !conflict && (
        <Note>
          {offer.words}
          <button
            type="button"
            className="shrink-0 font-semibold text-kelp hover:underline disabled:opacity-50"
            disabled={acts.busy}
            onClick={() => acts.run([{ id: 'offer', ...offer.rule }], 'Pair elements with work by the same value')}
          >
            Pair {offer.elements}
          </button>
        </Note>
      )}
      {!asList && (
        <div className="mt-1.5">
          <ViewTools
            look={look}
            onLook={setLook}
            heights={heights}
            framing={framing}
            onFraming={setFraming}
            aside={modes.size}
            onShowAll={() => setModes(new Map())}
            views={views}
            onView={desk.show}
            onKeep={desk.keepView}
            onDrop={desk.dropView}
          />
        </div>
      )}
      <Dropping>
        {asList ? (
          <ElementList
            open={open}
            fields={book.fields}
            where={asked.where}
            chosen={chosen}
            onChoose={choose}
            onAll={(w) => void chooseWhere(w)}
            onFill={acts.codeByField}
            onPaste={acts.codeByPaste}
          />
        ) : bounds && looks ? (
          <Pictures
            body={book.body}
            bounds={bounds}
            storeys={storeys}
            looks={looks}
            promised={promised}
            words={standing?.words ?? 'The model'}
            look={look}
            framing={framing}
            pointed={pointed && hover && !carrying ? { ...hover, element: pointed } : null}
            onLook={setLook}
            onChoose={choose}
            onHover={setHover}
          />
        ) : (
          <p className="p-6 text-soft" role="status">
            {bounds ? 'Drawing the model …' : 'No element of this model has a body; see the list.'}
          </p>
        )}
      </Dropping>
    </div>
  );
}

/** The middle, onto which an activity can be dropped. */
function Dropping({ children }: { children: ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id: 'onto the model', data: { model: true } });
  return (
    <div ref={setNodeRef} className={`mt-1.5 min-h-0 flex-1 rounded-md ${isOver ? 'outline-2 outline-marigold' : ''}`}>
      {children}
    </div>
  );
}

/** Something that is offered or is wrong, in words, with what can be done at its end. */
function Note({ tone = 'plain', children }: { tone?: 'plain' | 'late'; children: ReactNode }) {
  return (
    <div
      className={`flex items-center justify-between gap-4 rounded-md px-3 py-1.5 text-[13.5px] ${tone === 'late' ? 'bg-madder/10 text-madder' : 'bg-[#EEF1F0]'}`}
    >
      {children}
    </div>
  );
}
