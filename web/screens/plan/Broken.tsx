import type { Delivery } from "../../../api/index.ts";

interface BrokenProps {
  readonly delivery: Delivery;
  readonly broken: Delivery["plan"]["broken"];
}

/** Where an order made by hand tells something before what it rests on, and why that matters. It may be kept. */
export function Broken({ delivery, broken }: BrokenProps) {
  if (broken.length === 0) return null;
  const topicOf = new Map(delivery.topics.map((topic) => [topic.id, topic]));
  return (
    <ul role="status" className="my-2 border-l-4 border-amber pl-3 text-oncaution">
      {broken.map(({ topic, before }) => (
        <li key={`${topic} ${before}`} className="py-1">
          “{topicOf.get(topic)?.title}” rests on “{topicOf.get(before)?.title}”, which now comes later.{" "}
          {topicOf.get(before)?.why}
        </li>
      ))}
    </ul>
  );
}
