import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from "@dnd-kit/core";
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { ArrowDown, ArrowUp, GripVertical } from "lucide-react";
import { useMemo, useState } from "react";
import type { Delivery } from "../../../api/index.ts";
import { listBroken } from "../../../core/route/index.ts";
import { findTopicStation, type Topic } from "../../../core/topic/index.ts";
import { Button } from "../../ui/Button.tsx";
import { Broken } from "./Broken.tsx";

interface OrderByHandProps {
  readonly delivery: Delivery;
  readonly isBusy: boolean;
  readonly onKeep: (hand: string[]) => void;
  readonly onLeave: () => void;
}

/** The order as a list to be moved about, by drag or by key; what a move breaks is said at once. */
export function OrderByHand({ delivery, isBusy, onKeep, onLeave }: OrderByHandProps) {
  const { rig, plan } = delivery;
  const [order, setOrder] = useState(() => plan.visits.flatMap(({ topics }) => topics));
  const topicOf = useMemo(() => new Map(delivery.topics.map((topic) => [topic.id, topic])), [delivery.topics]);
  const told = order.flatMap((id) => topicOf.get(id) ?? []);
  const broken = listBroken(told, delivery.topics);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const move = (from: number, to: number) => {
    if (to >= 0 && to < order.length) setOrder(arrayMove(order, from, to));
  };
  return (
    <section aria-labelledby="by-hand">
      <div className="flex flex-wrap items-end justify-between gap-2">
        <h2 id="by-hand" className="text-lg font-bold">
          The order, by hand
        </h2>
        <span className="flex gap-2">
          <Button onClick={onLeave}>Leave it as it was</Button>
          <Button look="primary" disabled={isBusy} onClick={() => onKeep(order)}>
            Keep this order
          </Button>
        </span>
      </div>
      <Broken delivery={delivery} broken={broken} />
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={({ active, over }) => {
          if (over !== null && active.id !== over.id)
            move(order.indexOf(String(active.id)), order.indexOf(String(over.id)));
        }}
      >
        <SortableContext items={order} strategy={verticalListSortingStrategy}>
          <ol className="mt-1 border-t border-ink">
            {told.map((topic, i) => (
              <Line
                key={topic.id}
                topic={topic}
                station={findTopicStation(rig, topic)?.label ?? ""}
                isNewStop={i === 0 || findTopicStation(rig, told[i - 1]!)?.id !== findTopicStation(rig, topic)?.id}
                isBroken={broken.some((each) => each.topic === topic.id)}
                onUp={() => move(i, i - 1)}
                onDown={() => move(i, i + 1)}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
    </section>
  );
}

interface LineProps {
  readonly topic: Topic;
  readonly station: string;
  readonly isNewStop: boolean;
  readonly isBroken: boolean;
  readonly onUp: () => void;
  readonly onDown: () => void;
}

function Line({ topic, station, isNewStop, isBroken, onUp, onDown }: LineProps) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: topic.id });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`flex items-center gap-1 border-b border-rule bg-sheet ${isDragging ? "relative z-10 shadow-lg" : ""}`}
    >
      <button
        type="button"
        {...attributes}
        {...listeners}
        aria-label={`Move: ${topic.title}`}
        className="grid size-11 shrink-0 cursor-grab touch-none place-items-center"
      >
        <GripVertical aria-hidden size={18} />
      </button>
      <span
        className={`min-w-0 flex-1 border-l-4 pl-2 ${topic.must ? "border-ink font-semibold" : "border-transparent"}`}
      >
        {isBroken && <span className="text-amber">▲ </span>}
        {topic.title}
        <span className="block text-sm font-normal text-soft">{isNewStop ? station : ""}</span>
      </span>
      <Button className="w-11 px-0" aria-label={`Up: ${topic.title}`} onClick={onUp}>
        <ArrowUp aria-hidden size={16} />
      </Button>
      <Button className="w-11 px-0" aria-label={`Down: ${topic.title}`} onClick={onDown}>
        <ArrowDown aria-hidden size={16} />
      </Button>
    </li>
  );
}
