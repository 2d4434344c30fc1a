import { useDraggable } from '@dnd-kit/core';
import type { ReactNode } from 'react';

/** Something a hand can drag to the table. The key for the same is t. */
export function Draggable({
  kind,
  id,
  name,
  className = '',
  children,
}: {
  kind: 'paper' | 'picture';
  id: string;
  name: string;
  className?: string;
  children: ReactNode;
}) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({
    id: `${kind}-${id}`,
    data: { kind, id, name },
  });
  return (
    <div
      ref={setNodeRef}
      {...listeners}
      className={`${className} ${isDragging ? 'relative z-30 cursor-grabbing' : ''}`}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
    >
      {children}
    </div>
  );
}
