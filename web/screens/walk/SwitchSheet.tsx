import { hasBehind, type Rig } from "../../../core/rig/index.ts";
import type { Topic } from "../../../core/topic/index.ts";
import { Button } from "../../ui/Button.tsx";
import { kindWords } from "./ThingItself.tsx";
import type { Walk } from "./useWalk.ts";

interface SwitchSheetProps {
  readonly walk: Walk;
  readonly switchId: string;
  readonly onBack: () => void;
}

/** "What is this switch?": what each position does, what feeds it, what is told about it. */
export function SwitchSheet({ walk, switchId, onBack }: SwitchSheetProps) {
  const { rig } = walk.delivery;
  const index = rig.panel.findIndex(({ id }) => id === switchId);
  const item = rig.panel[index];
  if (item === undefined) return null;
  const labelOf = new Map(rig.loads.map(({ id, label }) => [id, label]));
  const powered = new Set(item.positions.flatMap(({ powers }) => powers));
  const breakers = rig.breakers.filter(({ feeds }) => feeds.some((id) => powered.has(id)));
  const topics = listTopicsOf(rig, powered, walk);
  return (
    <article aria-labelledby="switch" className="m-3 border-l-[7px] border-helm pl-3 md:m-4 md:mr-8 md:pl-5">
      <p className="head text-base font-semibold text-soft">
        Switch {index + 1} of {rig.panel.length}, {kindWords[item.kind]}
      </p>
      <h1 id="switch" className="text-3xl leading-tight font-extrabold md:text-4xl">
        {item.label ?? "No label"}
      </h1>
      {!hasBehind(item) && item.kind !== "lamp" && (
        <p className="mt-2">Nothing is behind it on this boat: nothing happens, and nothing is wrong.</p>
      )}
      <dl className="mt-3 grid grid-cols-[110px_1fr] gap-x-4 gap-y-2">
        {item.positions.map(({ label, powers }) => (
          <div key={label} className="contents">
            <dt className="head font-semibold">{label}</dt>
            <dd>{powers.length === 0 ? "off" : powers.map((id) => labelOf.get(id) ?? id).join(", ")}</dd>
          </div>
        ))}
        {item.note !== undefined && (
          <div className="contents">
            <dt className="head font-semibold text-soft">Know</dt>
            <dd>{item.note}</dd>
          </div>
        )}
        {breakers.length > 0 && (
          <div className="contents">
            <dt className="head font-semibold text-soft">Fed by</dt>
            <dd>
              {breakers.map(({ id, label, ratingA, part }) => (
                <p key={id}>
                  {label}, {ratingA} A: {rig.parts.find((other) => other.id === part)?.label}
                </p>
              ))}
            </dd>
          </div>
        )}
      </dl>
      {topics.length > 0 && (
        <>
          <h2 className="mt-4 text-base font-semibold text-soft">Topics about it</h2>
          <ul className="border-t border-ink">
            {topics.map(({ id, title }) => (
              <li key={id} className="border-b border-rule">
                <button
                  type="button"
                  className="min-h-14 w-full text-left font-text underline"
                  onClick={() => {
                    walk.goToTopic(id);
                    onBack();
                  }}
                >
                  {title}
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
      <Button className="mt-4 min-h-16 px-8" onClick={onBack}>
        Back to the walk
      </Button>
    </article>
  );
}

/** The topics about what a switch powers; none of its own, then what is told about the panel. */
function listTopicsOf(rig: Rig, powered: ReadonlySet<string>, walk: Walk): Topic[] {
  const kinds = new Set<string>(rig.loads.flatMap(({ id, serves = [] }) => (powered.has(id) ? serves : [])));
  const about = walk.delivery.topics.filter((topic) => {
    const asks = [...JSON.stringify(topic.when).matchAll(/"has":"([a-z-]+)"/g)].map((match) => match[1]!);
    return (topic.of !== undefined && kinds.has(topic.of)) || asks.some((kind) => kinds.has(kind));
  });
  return about.length > 0 ? about : walk.delivery.topics.filter(({ id }) => id === "panel-order");
}
