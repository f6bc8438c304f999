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

interface ManualOrderProps {
  readonly delivery: Delivery;
  readonly isBusy: boolean;
  readonly onKeep: (manualOrder: string[]) => void;
  readonly onLeave: () => void;
}

/** The order as a list to be moved about, by drag or by key; what a move breaks is said at once. */
export function ManualOrder({ delivery, isBusy, onKeep, onLeave }: ManualOrderProps) {
  const { rig, plan } = delivery;
  const [order, setOrder] = useState(() => plan.visits.flatMap(({ topics }) => topics));
  const topicOf = useMemo(() => new Map(delivery.topics.map((topic) => [topic.id, topic])), [delivery.topics]);
  const told = order.flatMap((id) => topicOf.get(id) ?? []);
  const broken = listBroken(told, delivery.topics);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const stops = groupByStop(told, rig);
  /** Puts a whole stop before or after its neighbour. */
  const moveStop = (at: number, to: number) => {
    if (to < 0 || to >= stops.length) return;
    setOrder(arrayMove([...stops], at, to).flatMap(({ topics }) => topics));
  };
  const stopAt = new Map(stops.map((stop, i) => [stop.topics[0]!, i]));
  const move = (from: number, to: number) => {
    if (to >= 0 && to < order.length) setOrder(arrayMove(order, from, to));
  };
  const describeStop = (first: string): StopMoves | null => {
    const at = stopAt.get(first);
    if (at === undefined) return null;
    return { label: stops[at]!.label, onUp: () => moveStop(at, at - 1), onDown: () => moveStop(at, at + 1) };
  };
  return (
    <section aria-labelledby="by-hand">
      <div className="flex flex-wrap items-end justify-between gap-2">
        <h2 id="by-hand" className="text-lg font-bold">
          The order, by hand
        </h2>
        <span className="flex gap-2">
          <Button onClick={onLeave}>Cancel</Button>
          <Button look="primary" disabled={isBusy} onClick={() => onKeep(order)}>
            Save this order
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
                stop={describeStop(topic.id)}
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

interface StopMoves {
  readonly label: string;
  readonly onUp: () => void;
  readonly onDown: () => void;
}

interface Stop {
  readonly station: string;
  readonly label: string;
  readonly topics: string[];
}

/** Neighbouring topics told at one place, as stops. */
function groupByStop(told: readonly Topic[], rig: Delivery["rig"]): Stop[] {
  const stops: Stop[] = [];
  for (const topic of told) {
    const station = findTopicStation(rig, topic);
    const id = station?.id ?? "";
    if (stops.at(-1)?.station !== id) stops.push({ station: id, label: station?.label ?? "", topics: [] });
    stops.at(-1)!.topics.push(topic.id);
  }
  return stops;
}

interface LineProps {
  readonly topic: Topic;
  /** Where a stop begins with this topic: its place, and the moves of the whole stop. */
  readonly stop: StopMoves | null;
  readonly isBroken: boolean;
  readonly onUp: () => void;
  readonly onDown: () => void;
}

function Line({ topic, stop, isBroken, onUp, onDown }: LineProps) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: topic.id });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`flex flex-wrap items-center gap-1 border-b border-rule bg-sheet ${isDragging ? "relative z-10 shadow-lg" : ""}`}
    >
      {stop !== null && (
        <p className="flex w-full items-center gap-1 border-t border-ink pt-1 head font-bold">
          <span className="mr-auto">{stop.label}</span>
          <Button look="quiet" className="w-11 px-0!" aria-label={`Stop up: ${stop.label}`} onClick={stop.onUp}>
            <ArrowUp aria-hidden size={16} />
          </Button>
          <Button look="quiet" className="w-11 px-0!" aria-label={`Stop down: ${stop.label}`} onClick={stop.onDown}>
            <ArrowDown aria-hidden size={16} />
          </Button>
        </p>
      )}
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
      </span>
      <Button className="w-11 px-0!" aria-label={`Up: ${topic.title}`} onClick={onUp}>
        <ArrowUp aria-hidden size={16} />
      </Button>
      <Button className="w-11 px-0!" aria-label={`Down: ${topic.title}`} onClick={onDown}>
        <ArrowDown aria-hidden size={16} />
      </Button>
    </li>
  );
}
