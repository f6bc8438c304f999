import { useEffect, useRef, useState } from "react";
import SignaturePad from "signature_pad";
import type { Delivery } from "../../../api/index.ts";
import type { EntryOf, Owed, SignRole, WalkState } from "../../../core/walk/index.ts";
import { useMe } from "../../app/useMe.ts";
import { journal } from "../../offline/useJournal.ts";
import { Button } from "../../ui/Button.tsx";
import { readPlain } from "../../ui/readPlain.ts";
import { SignatureImage } from "../../ui/SignatureImage.tsx";

interface SignPadsProps {
  readonly delivery: Delivery;
  readonly state: WalkState;
  readonly owed: readonly Owed[];
}

/** Who signs for what, in plain words: each buyer who is here, the one who walked, and a witness where one is wanted. */
export function SignPads({ delivery, state, owed }: SignPadsProps) {
  const me = useMe();
  const [isWitnessed, setWitnessed] = useState(false);
  const words = writeWords(delivery, state, owed);
  const buyers = delivery.buyers.filter(({ id }) => state.present.get(id)?.here ?? true);
  const isRefused = state.refusals.length > 0;
  const wantsWitness = isRefused || isWitnessed || state.signatures.some(({ role }) => role === "countersign");
  const signOf = (role: SignRole, name: string) =>
    state.signatures.find((sign) => sign.role === role && sign.name === name) ?? null;
  const staffSign = state.signatures.findLast(({ role }) => role === "staff") ?? null;
  const witness = state.signatures.findLast(({ role }) => role === "countersign") ?? null;
  return (
    <section aria-labelledby="sign">
      <h2 id="sign" className="text-lg font-bold">
        Sign
      </h2>
      <div className="grid gap-x-6 gap-y-8 border-t border-ink pt-3 md:grid-cols-2">
        {buyers.map(({ id, name }, i) => {
          const refusal = state.refusals.find((each) => each.name === name);
          if (refusal !== undefined) return <Refused key={id} delivery={delivery} refusal={refusal} />;
          return (
            <SignBox
              key={id}
              delivery={delivery}
              side="buyer"
              label={buyers.length === 1 ? "Buyer" : `Buyer ${i + 1}`}
              name={name}
              says={words.buyer}
              signed={signOf("buyer", name)}
            />
          );
        })}
        <SignBox
          delivery={delivery}
          side="staff"
          label="Staff"
          name={staffSign?.name ?? me.name}
          says={words.staff}
          signed={staffSign}
        />
        {wantsWitness && (
          <SignBox
            delivery={delivery}
            side="countersign"
            label="Witness"
            name={witness?.name ?? null}
            says={[isRefused ? "I was there when the buyer did not sign." : "I was there when this was signed."]}
            signed={witness}
          />
        )}
      </div>
      {!wantsWitness && (
        <button type="button" className="mt-2 min-h-11 text-soft underline" onClick={() => setWitnessed(true)}>
          Somebody else of the store signs as well
        </button>
      )}
    </section>
  );
}

/** What is signed for, as it stands now; the words go into the record with the signature. */
function writeWords({ topics, rig }: Delivery, state: WalkState, owed: readonly Owed[]) {
  const explained = topics.filter(({ id }) => {
    const mark = state.topics.get(id)?.mark;
    return mark === "told" || mark === "shown" || mark === "did";
  }).length;
  const byHand = topics.filter(({ id }) => state.topics.get(id)?.mark === "did").length;
  const counted = rig.gear.filter(({ id, count }) => (state.gear.get(id)?.count ?? 0) >= count).length;
  const isOwed = owed.length === 0 ? "Nothing is owed to me." : `${owed.length} things are owed to me, as listed here.`;
  return {
    buyer: [
      `${explained} topics were explained to me, ${byHand} of them I did with my own hands.`,
      `I received the gear as counted: ${counted} of ${rig.gear.length} kinds in full.`,
      isOwed,
    ],
    staff: [`I explained this boat as marked: ${explained} of ${topics.length} topics.`],
  };
}

function Refused({ delivery, refusal }: { delivery: Delivery; refusal: EntryOf<"refuse"> }) {
  return (
    <div className="border-l-4 border-magenta pl-3">
      <p className="font-semibold">{refusal.name} does not sign</p>
      <p className="text-magenta">▲ {refusal.reason}</p>
      <Button
        look="quiet"
        className="mt-2"
        onClick={() => void journal.add(delivery.id, { kind: "undo", ref: refusal.id })}
      >
        Signs after all
      </Button>
    </div>
  );
}

interface SignBoxProps {
  readonly delivery: Delivery;
  readonly side: SignRole;
  readonly label: string;
  /** Null: it is asked for. */
  readonly name: string | null;
  readonly says: readonly string[];
  readonly signed: EntryOf<"sign"> | null;
}

function SignBox({ delivery, side, label, name, says, signed }: SignBoxProps) {
  const [isEmpty, setEmpty] = useState(true);
  const [typedName, setTypedName] = useState("");
  const [isRefusing, setRefusing] = useState(false);
  const [reason, setReason] = useState("");
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
  if (signed !== null)
    return (
      <div>
        <SignatureImage sign={signed} className="h-28 w-full border-b border-ink" />
        <p className="font-semibold break-words">{signed.name}</p>
        <Words says={signed.signsFor ?? says} />
        <Button
          look="quiet"
          className="mt-2"
          onClick={() => void journal.add(delivery.id, { kind: "undo", ref: signed.id })}
        >
          Sign again
        </Button>
      </div>
    );
  const called = name ?? typedName.trim();
  const keep = () => {
    if (pad.current === null || canvas.current === null || pad.current.isEmpty() || called === "") return;
    const strokes = pad.current
      .toData()
      .map(({ points }) => points.flatMap(({ x, y }) => [Math.round(x * 10) / 10, Math.round(y * 10) / 10]));
    const { clientWidth: width, clientHeight: height } = canvas.current;
    void journal.add(delivery.id, {
      kind: "sign",
      role: side,
      name: called,
      signsFor: [...says],
      width,
      height,
      strokes,
    });
  };
  const whose = label.toLowerCase();
  return (
    <div>
      <Words says={says} />
      {name === null ? (
        <input
          aria-label="Name of the witness"
          placeholder="Name of the witness"
          value={typedName}
          maxLength={80}
          onChange={(event) => setTypedName(readPlain(event))}
          className="mt-1 min-h-11 w-full rounded-md border border-soft bg-panel px-3 placeholder:text-soft"
        />
      ) : (
        <p className="mt-1 break-words text-soft">
          {label}: {name}
        </p>
      )}
      <canvas
        ref={canvas}
        aria-label={`${label} signature, drawn with finger or pen`}
        className="mt-2 h-36 w-full touch-none rounded-sm border border-ink bg-panel"
      />
      <div className="mt-2 flex flex-wrap gap-2">
        <Button disabled={isEmpty || called === ""} onClick={keep}>
          Keep the {whose} signature
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
        {side === "buyer" && !isRefusing && (
          <button type="button" className="min-h-11 px-2 text-soft underline" onClick={() => setRefusing(true)}>
            Does not sign
          </button>
        )}
      </div>
      {isRefusing && (
        <form
          className="mt-2 flex flex-wrap gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (reason.trim() === "") return;
            void journal.add(delivery.id, { kind: "refuse", name: called, reason: reason.trim() });
            setRefusing(false);
          }}
        >
          <input
            // biome-ignore lint/a11y/noAutofocus: it was just asked for
            autoFocus
            aria-label={`Why ${called} does not sign`}
            placeholder="Why, in their words"
            value={reason}
            maxLength={500}
            onChange={(event) => setReason(readPlain(event))}
            className="min-h-11 min-w-0 flex-1 basis-48 rounded-md border border-soft bg-panel px-3 placeholder:text-soft"
          />
          <Button type="submit" look="person">
            Keep the reason
          </Button>
        </form>
      )}
    </div>
  );
}

function Words({ says }: { says: readonly string[] }) {
  return (
    <ul className="text-soft">
      {says.map((line) => (
        <li key={line}>{line}</li>
      ))}
    </ul>
  );
}
