import { useState } from "react";
import type { OwnerPage } from "../../../api/index.ts";
import type { Topic } from "../../../core/topic/index.ts";
import type { WalkState } from "../../../core/walk/index.ts";
import { DeckPlan } from "../../plan/DeckPlan.tsx";
import { TopicWords } from "../../topic/TopicWords.tsx";
import { Button } from "../../ui/Button.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { useTell } from "../../ui/tell.ts";
import { AskTheYard } from "./AskTheYard.tsx";
import { useOwner } from "./useOwner.ts";

interface OwnerWalkProps {
  readonly token: string;
  readonly page: OwnerPage;
  readonly state: WalkState;
}

/** The walk for a buyer who is not with us: one topic at a time, where it is, what to do, the caution; they say how far they got. */
export function OwnerWalk({ token, page, state }: OwnerWalkProps) {
  const tell = useTell();
  const { delivery } = page;
  const { add } = useOwner(token, page);
  const byId = new Map(delivery.topics.map((topic) => [topic.id, topic]));
  const steps = delivery.plan.visits.flatMap(({ station, topics }) =>
    topics.flatMap((id) => {
      const topic = byId.get(id);
      return topic === undefined ? [] : [{ station, topic }];
    }),
  );
  const firstOpen = steps.findIndex(({ topic }) => !state.remote.has(topic.id));
  const [at, setAt] = useState(Math.max(0, firstOpen));
  const step = steps[Math.min(at, steps.length - 1)];
  if (step === undefined) return <p>{tell("There is nothing on this walk.")}</p>;
  const { topic, station } = step;
  const said = state.remote.get(topic.id)?.as;
  const next = () => {
    setAt(Math.min(steps.length - 1, at + 1));
    window.scrollTo(0, 0);
  };
  const say = (as: Said) => add.mutate([{ kind: "remote", topic: topic.id, as }], { onSuccess: next });
  return (
    <>
      <p className="num text-soft">{tell("{0} of {1}, {2} done", at + 1, steps.length, state.remote.size)}</p>
      <div className="mt-1 grid grid-cols-[96px_1fr] gap-4">
        <DeckPlan rig={delivery.rig} picked={station} signs={new Map([[station, here]])} className="h-52 bg-buff p-1" />
        <div>
          <p className="head font-semibold text-soft">
            {tell(delivery.rig.stations.find(({ id }) => id === station)?.label ?? "")}
          </p>
          <h2 className={`text-2xl font-extrabold ${topic.must ? "border-l-[6px] border-ink pl-3" : ""}`}>
            {topic.title}
          </h2>
          {topic.must && <p className="text-soft">{tell("must be done before you use the boat")}</p>}
        </div>
      </div>
      <TopicWords topic={topic} />
      <SayButtons topic={topic} said={said} onSay={say} />
      {add.error !== null && <ErrorNotice error={add.error} />}
      <div className="mt-3 flex justify-between">
        <Button look="quiet" disabled={at === 0} onClick={() => setAt(at - 1)}>
          {tell("Before")}
        </Button>
        <Button look="quiet" disabled={at === steps.length - 1} onClick={next}>
          {tell("Next")}
        </Button>
      </div>
      <AskTheYard key={topic.id} token={token} page={page} state={state} topic={topic.id} />
    </>
  );
}

const here = { number: null, look: "current" } as const;

type Said = "understood" | "did";

interface SayProps {
  readonly topic: Topic;
  readonly said: Said | undefined;
  readonly onSay: (as: Said) => void;
}

function SayButtons({ topic, said, onSay }: SayProps) {
  const tell = useTell();
  return (
    <div className="mt-5 flex flex-wrap gap-2">
      <Button
        look={topic.level === "done" ? "plain" : "primary"}
        aria-pressed={said === "understood"}
        className="min-h-16 flex-1"
        onClick={() => onSay("understood")}
      >
        {said === "understood" && "✓ "}
        {tell("Understood")}
      </Button>
      <Button
        look={topic.level === "done" ? "primary" : "plain"}
        aria-pressed={said === "did"}
        className="min-h-16 flex-1"
        onClick={() => onSay("did")}
      >
        {said === "did" && "✓ "}
        {tell("Did it myself")}
      </Button>
    </div>
  );
}
