import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from "@dnd-kit/core";
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { ArrowDown, ArrowUp, GripVertical, Trash2 } from "lucide-react";
import type { ReactNode } from "react";

interface Item {
  readonly id: string;
}

interface SheetListProps<T extends Item> {
  readonly name: string;
  readonly items: readonly T[];
  readonly open: string | null;
  readonly onOpen: (id: string | null) => void;
  readonly titleOf: (item: T, i: number) => string;
  readonly lineOf: (item: T) => string;
  readonly onRemove?: ((id: string) => void) | undefined;
  /** Given where the order means something: the order as one meets them. */
  readonly onMove?: ((id: string, to: number) => void) | undefined;
  /** What is said where there are none yet. */
  readonly empty: string;
  readonly children: (item: T) => ReactNode;
}

/** Items of a rig, one line each; the open one shows its fields below its line. */
export function SheetList<T extends Item>(props: SheetListProps<T>) {
  const { name, items, open, onOpen, titleOf, lineOf, onRemove, onMove, empty, children } = props;
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  if (items.length === 0) return <p className="border-t border-ink py-3 text-soft">{empty}</p>;
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => {
        if (over !== null && active.id !== over.id)
          onMove?.(
            String(active.id),
            items.findIndex(({ id }) => id === over.id),
          );
      }}
    >
      <SortableContext items={items.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
        <ol className="border-t border-ink" aria-label={name}>
          {items.map((item, i) => (
            <Line
              key={item.id}
              id={item.id}
              title={titleOf(item, i)}
              line={lineOf(item)}
              isOpen={open === item.id}
              onToggle={() => onOpen(open === item.id ? null : item.id)}
              onRemove={onRemove === undefined ? undefined : () => onRemove(item.id)}
              onUp={onMove === undefined || i === 0 ? undefined : () => onMove(item.id, i - 1)}
              onDown={onMove === undefined || i === items.length - 1 ? undefined : () => onMove(item.id, i + 1)}
              canDrag={onMove !== undefined}
            >
              {open === item.id && children(item)}
            </Line>
          ))}
        </ol>
      </SortableContext>
    </DndContext>
  );
}

interface LineProps {
  readonly id: string;
  readonly title: string;
  readonly line: string;
  readonly isOpen: boolean;
  readonly canDrag: boolean;
  readonly onToggle: () => void;
  readonly onRemove?: (() => void) | undefined;
  readonly onUp?: (() => void) | undefined;
  readonly onDown?: (() => void) | undefined;
  readonly children: ReactNode;
}

const iconLook = "grid size-11 shrink-0 place-items-center rounded-md text-soft hover:text-ink disabled:opacity-30";

function Line({ id, title, line, isOpen, canDrag, onToggle, onRemove, onUp, onDown, children }: LineProps) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id,
    disabled: !canDrag,
  });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      className={`border-b border-rule ${isDragging ? "relative z-10 bg-shoal" : ""} ${isOpen ? "bg-panel" : ""}`}
    >
      <div className="flex items-center">
        {canDrag && (
          <button type="button" className={iconLook} aria-label={`Drag ${title}`} {...attributes} {...listeners}>
            <GripVertical size={18} aria-hidden />
          </button>
        )}
        <button
          type="button"
          aria-expanded={isOpen}
          onClick={onToggle}
          className="flex min-h-11 min-w-0 flex-1 flex-wrap items-baseline gap-x-3 py-2 text-left"
        >
          <span className="head font-semibold">{title}</span>
          <span className="min-w-0 font-text text-soft">{line}</span>
        </button>
        {isOpen && canDrag && (
          <>
            <button
              type="button"
              className={iconLook}
              aria-label={`Move ${title} up`}
              disabled={onUp === undefined}
              onClick={onUp}
            >
              <ArrowUp size={18} aria-hidden />
            </button>
            <button
              type="button"
              className={iconLook}
              aria-label={`Move ${title} down`}
              disabled={onDown === undefined}
              onClick={onDown}
            >
              <ArrowDown size={18} aria-hidden />
            </button>
          </>
        )}
        {isOpen && onRemove !== undefined && (
          <button type="button" className={iconLook} aria-label={`Remove ${title}`} onClick={onRemove}>
            <Trash2 size={18} aria-hidden />
          </button>
        )}
      </div>
      {isOpen && <div className="space-y-3 px-3 pt-1 pb-5">{children}</div>}
    </li>
  );
}
