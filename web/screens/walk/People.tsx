import { UserPlus } from "lucide-react";
import { useState } from "react";
import { formatBuyers, listHands } from "../../../core/walk/index.ts";
import { Button } from "../../ui/Button.tsx";
import { Chip } from "../../ui/Chip.tsx";
import { MarkSign, markWords } from "../../ui/MarkSign.tsx";
import { TakePhoto } from "../../ui/Photos.tsx";
import { readPlain } from "../../ui/readPlain.ts";
import type { Walk } from "./useWalk.ts";

/** Who the next mark is for, beside the marks: several buyers have theirs each. */
export function WhoFor({ walk }: { walk: Walk }) {
  const here = walk.people.filter(({ isHere }) => isHere);
  if (here.length < 2) return null;
  const hands = listHands(walk.step.topic, walk.people, walk.state);
  return (
    <div role="radiogroup" aria-label="Who the mark is for" className="mb-2 flex flex-wrap items-center gap-2">
      <span aria-hidden className="head text-base font-semibold text-soft">
        For
      </span>
      <Who name="All here" isPicked={walk.person === null} onPick={() => walk.setPerson(null)} />
      {here.map(({ id, name }) => (
        <Who
          key={id}
          name={name.split(" ")[0]!}
          mark={hands.get(id) ?? null}
          isPicked={walk.person === id}
          onPick={() => walk.setPerson(id)}
        />
      ))}
    </div>
  );
}

/** Who is here; of a must to be done by their own hands, who has done it and who has not. */
export function People({ walk }: { walk: Walk }) {
  const [isOpen, setOpen] = useState(false);
  const { topic } = walk.step;
  const here = walk.people.filter(({ isHere }) => isHere);
  const hands = listHands(topic, walk.people, walk.state);
  const isByHand = topic.must && topic.level === "done" && here.length > 1;
  return (
    <section aria-label="People" className="mt-3">
      <div className="flex flex-wrap items-center gap-2">
        <span className="head w-[88px] text-base font-semibold text-soft max-md:w-full">Who</span>
        {here.length > 0 && <span className="text-base">{formatBuyers(here)}</span>}
        {here.length === 0 && <span className="text-base text-magenta">▲ nobody of the buyers is here</span>}
        <button
          type="button"
          className="inline-flex min-h-12 items-center gap-2 px-2 font-text text-base text-soft underline"
          aria-expanded={isOpen}
          onClick={() => setOpen(!isOpen)}
        >
          <UserPlus size={18} aria-hidden /> Who is here
        </button>
        <span className="ml-auto">
          <TakePhoto
            says="Photo"
            onTaken={(photo) => void walk.add({ kind: "photo", photo, topic: topic.id, ref: null })}
          />
        </span>
      </div>
      {isByHand && (
        <p className="mt-1 text-base md:ml-[96px]">
          <span className="text-soft">By their own hands: </span>
          {here.map(({ id, name }, i) => {
            const mark = hands.get(id) ?? null;
            return (
              <span key={id} className="whitespace-nowrap">
                {i > 0 && " · "}
                {name.split(" ")[0]}{" "}
                <strong>
                  {mark === "did" ? "● did it" : mark === null ? "○ not yet" : `○ ${markWords[mark]} only`}
                </strong>
              </span>
            );
          })}
        </p>
      )}
      {isOpen && <WhoIsHere walk={walk} onDone={() => setOpen(false)} />}
    </section>
  );
}

interface WhoProps {
  readonly name: string;
  readonly mark?: Parameters<typeof MarkSign>[0]["mark"];
  readonly isPicked: boolean;
  readonly onPick: () => void;
}

function Who({ name, mark = null, isPicked, onPick }: WhoProps) {
  return (
    <Chip isPicked={isPicked} onPick={onPick}>
      {mark !== null && <MarkSign mark={mark} size={14} />}
      {name}
    </Chip>
  );
}

function WhoIsHere({ walk, onDone }: { walk: Walk; onDone: () => void }) {
  const [name, setName] = useState("");
  const say = (person: string, called: string, here: boolean) =>
    void walk.add({ kind: "present", person, name: called, here });
  return (
    <div className="mt-2 border-l-4 border-helm py-1 pl-4 text-base md:ml-[96px]">
      <ul>
        {walk.people.map(({ id, name: called, isHere }) => (
          <li key={id}>
            <label className="flex min-h-12 items-center gap-3 break-words">
              <input
                type="checkbox"
                className="size-6 shrink-0 accent-ink"
                checked={isHere}
                onChange={(event) => say(id, called, event.target.checked)}
              />
              {called}
            </label>
          </li>
        ))}
      </ul>
      <form
        className="flex flex-wrap gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          const called = name.trim();
          if (called === "") return;
          say(`p-${crypto.randomUUID().slice(0, 8)}`, called, true);
          setName("");
        }}
      >
        <input
          aria-label="Somebody who came along"
          placeholder="Somebody who came along"
          value={name}
          maxLength={80}
          onChange={(event) => setName(readPlain(event))}
          className="min-h-12 min-w-0 flex-1 basis-48 rounded-md border border-soft bg-panel px-3 placeholder:text-soft"
        />
        <Button type="submit" className="min-h-12">
          Add
        </Button>
        <Button look="quiet" className="min-h-12" onClick={onDone}>
          Done
        </Button>
      </form>
    </div>
  );
}
