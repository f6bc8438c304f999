import { useState } from "react";
import type { Delivery } from "../../../api/index.ts";
import {
  classifyLater,
  type Entry,
  formatEntry,
  formatStrike,
  joinSteps,
  sayJoined,
  struckFirstWords,
} from "../../../core/walk/index.ts";
import { syncQueue } from "../../offline/useSync.ts";
import { Button } from "../../ui/Button.tsx";
import { Chip } from "../../ui/Chip.tsx";
import { readPlain } from "../../ui/readPlain.ts";
import { storeDay } from "../../ui/storeTime.ts";
import { formatDayAndYear } from "../../ui/words.ts";
import { AboutTopic } from "./AboutTopic.tsx";
import { sayReceipt } from "./receiptWords.ts";

interface AddedProps {
  readonly delivery: Delivery;
  /** What came after the seal or was not covered by it, in the order of its coming. */
  readonly later: readonly Entry[];
  readonly nameOf: (id: string) => string;
}

/** What was said after signing, and a line to say more. */
export function AddedSince({ delivery, later, nameOf }: AddedProps) {
  const [note, setNote] = useState("");
  const [isCall, setCall] = useState(false);
  const [about, setAbout] = useState<string | null>(null);
  if (delivery.seal === null) return null;
  const titleOf = (id: string) => delivery.topics.find((topic) => topic.id === id)?.title ?? id;
  return (
    <section aria-labelledby="added">
      <h2 id="added" className="text-lg font-bold">
        Added since
      </h2>
      <ul className="border-t border-ink">
        {joinSteps(later).map((listed) => {
          const { entry } = listed;
          const { when, how } = describeLater(delivery, entry);
          return (
            <li key={entry.id} className="border-b border-rule py-1.5">
              {sayJoined(listed) ?? formatEntry(entry, delivery, titleOf)}{" "}
              <span className="text-soft">
                {nameOf(entry.by)}, {when}
              </span>
              {how !== null && <span className="block text-sm text-amber">◷ {how}</span>}
            </li>
          );
        })}
        {delivery.strikes.map((strike) => (
          <li key={strike.at} className="border-b border-rule py-1.5">
            {formatStrike(strike)} {strike.reason}{" "}
            <span className="text-soft">
              {nameOf(strike.by)}, {formatDayAndYear(storeDay(strike.at))}
            </span>
            <span className="block text-sm text-soft">
              {delivery.snapshot === null ? struckFirstWords : "The hashes stay, so that the rest still verifies."}
            </span>
          </li>
        ))}
      </ul>
      <form
        className="mt-2 flex flex-wrap gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          const said = note.trim();
          if (said === "") return;
          void syncQueue.add(
            delivery.id,
            isCall ? { kind: "call", topic: about, note: said } : { kind: "amend", note: said },
          );
          setNote("");
          setAbout(null);
        }}
      >
        <div role="radiogroup" aria-label="What it is" className="flex w-full flex-wrap gap-2">
          <Chip isPicked={!isCall} onPick={() => setCall(false)}>
            A note
          </Chip>
          <Chip isPicked={isCall} onPick={() => setCall(true)}>
            They called
          </Chip>
        </div>
        {isCall && <AboutTopic topics={delivery.topics} picked={about} onPick={setAbout} />}
        <input
          aria-label="A note to add to the record"
          value={note}
          maxLength={1000}
          onChange={(event) => setNote(readPlain(event))}
          placeholder={isCall ? "What they said" : "A note, added beside the seal"}
          className="min-h-11 min-w-0 flex-1 rounded-md border border-soft bg-panel px-3 placeholder:text-soft"
        />
        <Button type="submit">Add</Button>
      </form>
    </section>
  );
}

/** When something was added, and what it is to the sealed record. */
function describeLater(delivery: Delivery, entry: Entry) {
  const how = laterWords[classifyLater(entry, delivery.uncovered.includes(entry.id))];
  const lines = [sayReceipt(delivery, entry), how].filter((line) => line !== null);
  return { when: formatDayAndYear(storeDay(entry.at)), how: lines.length === 0 ? null : lines.join("; ") };
}

const laterWords = {
  uncovered: "not covered by the signatures",
  claim: "a later claim; the signed record stays",
  addition: null,
};
