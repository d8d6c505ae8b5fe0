import type { ReactNode } from 'react';
import { hint } from '@/ui/controls/hint';

const DRAGGED = 'application/x-manege-column';

interface Props {
  /** The dragged heading, and its place among its kind. */
  readonly id: string;
  readonly index: number;
  readonly count: number;
  readonly className: string;
  /** Puts one of the same kind in a place; the others keep their order. */
  readonly onMove: (id: string, to: number) => void;
  readonly children: ReactNode;
}

/** A column's heading; dragged onto another of its kind, or moved by Shift and an arrow key, it changes the order. */
export function MovableHeading({ id, index, count, className, onMove, children }: Props) {
  return (
    <span
      role="columnheader"
      tabIndex={0}
      draggable
      {...hint('Drag to reorder')}
      className={`cursor-grab ${className}`}
      onDragStart={(event) => {
        event.dataTransfer.setData(DRAGGED, id);
        event.dataTransfer.effectAllowed = 'move';
      }}
      onDragOver={(event) => {
        if (event.dataTransfer.types.includes(DRAGGED)) event.preventDefault();
      }}
      onDrop={(event) => {
        event.preventDefault();
        event.stopPropagation();
        onMove(event.dataTransfer.getData(DRAGGED), index);
      }}
      onKeyDown={(event) => {
        if (!event.shiftKey || (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight')) return;
        event.preventDefault();
        event.stopPropagation();
        const to = index + (event.key === 'ArrowLeft' ? -1 : 1);
        if (to >= 0 && to < count) onMove(id, to);
      }}
    >
      {children}
    </span>
  );
}
