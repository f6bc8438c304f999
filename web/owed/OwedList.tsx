import { useState } from "react";
import type { Delivery } from "../../api/index.ts";
import { compareOwed, type Owed, type WalkState } from "../../core/walk/index.ts";
import { Button } from "../ui/Button.tsx";
import { PhotoRow } from "../ui/Photos.tsx";
import { keepOwed } from "./keepOwed.ts";
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
  const sorted = [...owed].sort((a, b) => compareOwed(a, b, noDay));
  return (
    <>
      <ul className="border-t border-ink">
        {owed.length === 0 && <li className="py-2 text-soft">Nothing is owed.</li>}
        {sorted.map((each) => (
          <OwedRow key={each.ref} delivery={delivery.id} owed={each}>
            <PhotoRow photos={state.photos.filter(({ ref }) => ref === each.ref)} says={each.text} />
          </OwedRow>
        ))}
      </ul>
      {isAdding ? (
        <OwedPad
          rig={delivery.rig}
          topic={null}
          place={null}
          staff={delivery.staff.map(({ name }) => name)}
          onKeep={(entry, photos) => void keepOwed(delivery.id, entry, photos)}
          onDone={() => setAdding(false)}
        />
      ) : (
        <Button className="mt-2" onClick={() => setAdding(true)}>
          Add a snag or a promise
        </Button>
      )}
    </>
  );
}
