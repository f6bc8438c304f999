import { useEffect, useRef, useState } from "react";
import SignaturePad from "signature_pad";
import type { Delivery } from "../../../api/index.ts";
import type { EntryOf, WalkState } from "../../../core/walk/index.ts";
import { useMe } from "../../app/useMe.ts";
import { journal } from "../../offline/useJournal.ts";
import { Button } from "../../ui/Button.tsx";
import { SignatureImage } from "../../ui/SignatureImage.tsx";

/** Two signatures, each saying in plain words what is signed for. */
export function SignPads({ delivery, state }: { delivery: Delivery; state: WalkState }) {
  const me = useMe();
  return (
    <section aria-labelledby="sign">
      <h2 id="sign" className="text-lg font-bold">
        Sign
      </h2>
      <div className="grid gap-6 border-t border-ink pt-3 md:grid-cols-2">
        <SignBox
          delivery={delivery}
          side="buyer"
          names={delivery.buyers.map(({ name }) => name)}
          says="The marks are right, the gear was received, and I know what is owed."
          signed={state.signatures.get("buyer") ?? null}
        />
        <SignBox
          delivery={delivery}
          side="staff"
          names={[me.name]}
          says="I explained this boat as marked."
          signed={state.signatures.get("staff") ?? null}
        />
      </div>
    </section>
  );
}

interface SignBoxProps {
  readonly delivery: Delivery;
  readonly side: "buyer" | "staff";
  readonly names: readonly string[];
  readonly says: string;
  readonly signed: EntryOf<"sign"> | null;
}

function SignBox({ delivery, side, names, says, signed }: SignBoxProps) {
  const [name, setName] = useState(names[0]!);
  const [isEmpty, setEmpty] = useState(true);
  const canvas = useRef<HTMLCanvasElement>(null);
  const pad = useRef<SignaturePad | null>(null);
  useEffect(() => {
    if (signed !== null || canvas.current === null) return;
    const element = canvas.current;
    const ratio = window.devicePixelRatio;
    element.width = element.clientWidth * ratio;
    element.height = element.clientHeight * ratio;
    element.getContext("2d")!.scale(ratio, ratio);
    const made = new SignaturePad(element, { penColor: getComputedStyle(element).color });
    made.addEventListener("endStroke", () => setEmpty(made.isEmpty()));
    pad.current = made;
    return () => made.off();
  }, [signed]);
  const who = side === "buyer" ? "Buyer" : "Staff";
  if (signed !== null)
    return (
      <div>
        <SignatureImage sign={signed} className="h-28 w-full border-b border-ink" />
        <p className="font-semibold">{signed.name}</p>
        <p className="text-soft">{says}</p>
        <Button
          look="quiet"
          className="mt-2"
          onClick={() => void journal.add(delivery.id, { kind: "undo", ref: signed.id })}
        >
          Sign again
        </Button>
      </div>
    );
  const keep = () => {
    if (pad.current === null || canvas.current === null || pad.current.isEmpty()) return;
    const strokes = pad.current
      .toData()
      .map(({ points }) => points.flatMap(({ x, y }) => [Math.round(x * 10) / 10, Math.round(y * 10) / 10]));
    const { clientWidth: width, clientHeight: height } = canvas.current;
    void journal.add(delivery.id, { kind: "sign", role: side, name, width, height, strokes });
  };
  return (
    <div>
      <p>{says}</p>
      {names.length > 1 ? (
        <label className="mt-1 block text-soft">
          {who} signing{" "}
          <select
            value={name}
            onChange={(event) => setName(event.target.value)}
            className="min-h-11 max-w-full rounded-md border border-soft bg-panel px-2 text-ink"
          >
            {names.map((each) => (
              <option key={each}>{each}</option>
            ))}
          </select>
        </label>
      ) : (
        <p className="mt-1 text-soft break-words">
          {who}: {name}
        </p>
      )}
      <canvas
        ref={canvas}
        aria-label={`${who} signature, drawn with finger or pen`}
        className="mt-2 h-36 w-full touch-none rounded-sm border border-ink bg-panel"
      />
      <div className="mt-2 flex gap-2">
        <Button disabled={isEmpty} onClick={keep}>
          Keep the {side} signature
        </Button>
        <Button
          look="quiet"
          disabled={isEmpty}
          onClick={() => {
            pad.current?.clear();
            setEmpty(true);
          }}
        >
          Clear
        </Button>
      </div>
    </div>
  );
}
