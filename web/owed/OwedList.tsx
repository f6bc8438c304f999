import { useState } from "react";
import type { Delivery } from "../../api/index.ts";
import { compareOwed, type Owed, type WalkState } from "../../core/walk/index.ts";
import type { NewEntry } from "../offline/syncQueue.ts";
import { Button } from "../ui/Button.tsx";
import { PhotoRow } from "../ui/Photos.tsx";
import { findCorrecting, keepOwed } from "./keepOwed.ts";
import { listWhoFixes } from "./listWhoFixes.ts";
import { OwedPad } from "./OwedPad.tsx";
import { OwedRow } from "./OwedRow.tsx";

interface OwedListProps {
  readonly delivery: Delivery;
  readonly state: WalkState;
  readonly owed: readonly Owed[];
}

const noDay = "0000-00-00";

/** What is owed of one handover, each to be settled with a line on how; and a way to add to it. */
export function OwedList({ delivery, state, owed }: OwedListProps) {
  const [isAdding, setAdding] = useState(false);
  const [changing, setChanging] = useState<string | null>(null);
  const pad = {
    rig: delivery.rig,
    topic: null,
    place: null,
    staff: listWhoFixes(delivery),
    onKeep: (entry: NewEntry, photos: readonly string[]) => void keepOwed(delivery.id, entry, photos),
  };
  const sorted = [...owed].sort((a, b) => compareOwed(a, b, noDay));
  return (
    <>
      <ul className="border-t border-ink">
        {owed.length === 0 && <li className="py-2 text-soft">Nothing is owed.</li>}
        {sorted.map((each) => {
          const correcting = each.what === "snag" && delivery.seal === null ? findCorrecting(state, each.ref) : null;
          if (correcting !== null && each.ref === changing)
            return (
              <li key={each.ref} className="border-b border-rule">
                <OwedPad {...pad} correcting={correcting} onDone={() => setChanging(null)} />
              </li>
            );
          const change = correcting === null ? {} : { onChange: () => setChanging(each.ref) };
          return (
            <OwedRow key={each.ref} delivery={delivery.id} owed={each} {...change}>
              <PhotoRow photos={state.photos.filter(({ ref }) => ref === each.ref)} says={each.text} />
            </OwedRow>
          );
        })}
      </ul>
      {isAdding ? (
        <OwedPad {...pad} onDone={() => setAdding(false)} />
      ) : (
        <Button className="mt-2" onClick={() => setAdding(true)}>
          Add a snag or a promise
        </Button>
      )}
    </>
  );
}
