'use client';
import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  rectSortingStrategy,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { GripVertical } from 'lucide-react';
import type { ReactNode } from 'react';

/** A list whose items are put in order by their handles: dragged, or with Space and the arrow keys. */
export function Sortable({
  ids,
  onMove,
  children,
  grid = false,
}: {
  ids: string[];
  onMove: (from: number, to: number) => void;
  children: ReactNode;
  /** Whether items stand beside each other too. */
  grid?: boolean;
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const end = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id) onMove(ids.indexOf(String(active.id)), ids.indexOf(String(over.id)));
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={end}>
      <SortableContext items={ids} strategy={grid ? rectSortingStrategy : verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  );
}

/** One item of such a list, with its handle before it. */
export function SortableItem({
  id,
  name,
  className,
  handle = 'shrink-0 rounded text-soft/60 hover:text-ink',
  fixed = false,
  children,
}: {
  id: string;
  name: string;
  className: string;
  /** How its handle looks. */
  handle?: string;
  /** It stays where it is, and has no handle. */
  fixed?: boolean;
  children: ReactNode;
}) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id,
  });
  return (
    <li
      ref={setNodeRef}
      className={`${className} ${isDragging ? 'relative z-10 bg-wash shadow-md' : ''}`}
      style={{ transform: CSS.Translate.toString(transform), transition }}
    >
      {!fixed && (
        <button
          type="button"
          ref={setActivatorNodeRef}
          {...attributes}
          {...listeners}
          aria-label={`Move ${name}`}
          className={`cursor-grab ${handle}`}
        >
          <GripVertical size={15} aria-hidden />
        </button>
      )}
      {children}
    </li>
  );
}

/** A list with one of its items elsewhere. */
export function moved<T>(list: readonly T[], from: number, to: number): T[] {
  const rest = list.filter((_, k) => k !== from);
  return [...rest.slice(0, to), list[from]!, ...rest.slice(to)];
}
