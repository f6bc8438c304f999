import { useEffect, useRef, useState } from "react";
import SignaturePad from "signature_pad";
import type { Delivery } from "../../../api/index.ts";
import {
  countForSigning,
  type EntryOf,
  formatEntry,
  hashShown,
  isSignature,
  listSince,
  listStale,
  type SignRole,
  writeSignWords,
} from "../../../core/walk/index.ts";
import { useMe } from "../../app/useMe.ts";
import { syncQueue } from "../../offline/useSync.ts";
import { Button } from "../../ui/Button.tsx";
import { readPlain } from "../../ui/readPlain.ts";
import { SignatureImage } from "../../ui/SignatureImage.tsx";
import type { SittingState } from "./useSitting.ts";

interface SignPadsProps {
  readonly delivery: Delivery;
  readonly sitting: SittingState;
}

/** Who signs for what, in plain words: each buyer who is here, the one who walked, and a witness where one is wanted. */
export function SignPads({ delivery, sitting }: SignPadsProps) {
  const me = useMe();
  const [isWitnessed, setWitnessed] = useState(false);
  const { state, covered } = sitting;
  const isRefused = state.refusals.length > 0;
  /** What each signs for, as it stands now for them; the words go into the record with the signature. */
  const say = (role: SignRole, person: string | null) =>
    writeSignWords(role, countForSigning(delivery, state, person), isRefused);
  const buyers = delivery.buyers.filter(({ id }) => state.present.get(id)?.here ?? true);
  const wantsWitness = isRefused || isWitnessed || state.signatures.some(({ role }) => role === "countersign");
  const signOf = (id: string, name: string) =>
    state.signatures.find(
      (sign) => sign.role === "buyer" && (sign.person ?? sign.name) === (sign.person ? id : name),
    ) ?? null;
  const staffSign = state.signatures.findLast(({ role }) => role === "staff") ?? null;
  const witness = state.signatures.findLast(({ role }) => role === "countersign") ?? null;
  const stale = new Set(listStale(delivery, state).map(({ id }) => id));
  const titleOf = (id: string) => delivery.topics.find((topic) => topic.id === id)?.title ?? id;
  const changesSince = (sign: EntryOf<"sign">) =>
    listSince(sign, covered).map((entry) => ({
      id: entry.id,
      says: formatEntry(entry, { rig: delivery.rig, entries: covered }, titleOf),
    }));
  const box = { delivery, sitting, stale, changesSince };
  return (
    <>
      <div className="grid gap-x-6 gap-y-8 md:grid-cols-2">
        {buyers.map(({ id, name }, i) => {
          const refusal = state.refusals.find((each) => (each.person ?? each.name) === (each.person ? id : name));
          if (refusal !== undefined) return <Refused key={id} delivery={delivery} refusal={refusal} />;
          return (
            <SignBox
              key={id}
              {...box}
              side="buyer"
              label={buyers.length === 1 ? "Buyer" : `Buyer ${i + 1}`}
              name={name}
              person={id}
              says={say("buyer", id)}
              signed={signOf(id, name)}
            />
          );
        })}
        <SignBox
          {...box}
          side="staff"
          label="Staff"
          name={staffSign?.name ?? me.name}
          says={say("staff", null)}
          signed={staffSign}
        />
        {wantsWitness && (
          <SignBox
            {...box}
            side="countersign"
            label="Witness"
            name={witness?.name ?? null}
            says={say("countersign", null)}
            signed={witness}
          />
        )}
      </div>
      {!wantsWitness && (
        <button type="button" className="mt-2 min-h-11 text-soft underline" onClick={() => setWitnessed(true)}>
          Somebody else of the store signs as well
        </button>
      )}
    </>
  );
}

function Refused({ delivery, refusal }: { delivery: Delivery; refusal: EntryOf<"refuse"> }) {
  const me = useMe();
  return (
    <div className="border-l-4 border-magenta pl-3">
      <p className="font-semibold">{refusal.name} does not sign</p>
      <p className="text-magenta">▲ {refusal.reason}</p>
      <Button
        look="quiet"
        className="mt-2"
        onClick={() => {
          // Another's word is taken back with a reason, which prints.
          const why = refusal.by === me.id ? {} : { reason: `${refusal.name} signs after all` };
          void syncQueue.add(delivery.id, { kind: "undo", ref: refusal.id, ...why });
        }}
      >
        Signs after all
      </Button>
    </div>
  );
}

interface SignBoxProps {
  readonly delivery: Delivery;
  readonly sitting: SittingState;
  readonly side: SignRole;
  readonly label: string;
  /** Null: it is asked for. */
  readonly name: string | null;
  /** Of a buyer: which of the handover's people. */
  readonly person?: string;
  readonly says: readonly string[];
  readonly signed: EntryOf<"sign"> | null;
  /** Signatures that are for something else than what stands now. */
  readonly stale: ReadonlySet<string>;
  /** What changed since a signature, in words. */
  readonly changesSince: (sign: EntryOf<"sign">) => readonly { readonly id: string; readonly says: string }[];
}

function SignBox({ delivery, sitting, side, label, name, person, says, signed, stale, changesSince }: SignBoxProps) {
  const [typedName, setTypedName] = useState("");
  const [isRefusing, setRefusing] = useState(false);
  // A signature for what stood before a change is given anew wherever they are now; the one before is in the record.
  const [replaced, setReplaced] = useState<string | null>(null);
  const isOpen = signed === null || (signed.id === replaced && stale.has(signed.id));
  const { canvas, pad, ink, clear } = useInk(isOpen);
  if (!isOpen)
    return (
      <Signed
        delivery={delivery}
        signed={signed}
        says={says}
        changes={stale.has(signed.id) ? changesSince(signed) : null}
        onReplace={() => setReplaced(signed.id)}
      />
    );
  const called = name ?? typedName.trim();
  const keep = async () => {
    if (pad.current === null || canvas.current === null || ink !== "name" || called === "") return;
    const strokes = readStrokes(pad.current);
    const { clientWidth: width, clientHeight: height } = canvas.current;
    await sitting.begin();
    await syncQueue.add(delivery.id, {
      kind: "sign",
      role: side,
      name: called,
      ...(person === undefined ? {} : { person }),
      digest: hashShown(delivery, sitting.state),
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
      {ink === "dot" && (
        <p role="alert" className="text-magenta">
          ▲ A dot is no signature. Sign with your name.
        </p>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        <Button disabled={ink !== "name" || called === ""} onClick={() => void keep()}>
          Save the {whose} signature
        </Button>
        <Button look="quiet" disabled={ink === "none"} onClick={clear}>
          Clear
        </Button>
        {side === "buyer" && !isRefusing && (
          <button type="button" className="min-h-11 px-2 text-soft underline" onClick={() => setRefusing(true)}>
            Does not sign
          </button>
        )}
      </div>
      {isRefusing && (
        <RefusalForm delivery={delivery} name={called} person={person} onDone={() => setRefusing(false)} />
      )}
    </div>
  );
}

/** The strokes on a pad, as x, y pairs to a tenth of a pixel. */
const readStrokes = (pad: SignaturePad): number[][] =>
  pad.toData().map(({ points }) => points.flatMap(({ x, y }) => [Math.round(x * 10) / 10, Math.round(y * 10) / 10]));

function readInk(pad: SignaturePad, width: number): Ink {
  if (pad.isEmpty()) return "none";
  return isSignature({ strokes: readStrokes(pad), width }) ? "name" : "dot";
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

type Ink = "none" | "dot" | "name";

/** A pad to sign on, and what is on it. `isOpen`: nobody has signed here yet. */
function useInk(isOpen: boolean) {
  const [ink, setInk] = useState<Ink>("none");
  const canvas = useRef<HTMLCanvasElement>(null);
  const pad = useRef<SignaturePad | null>(null);
  useEffect(() => {
    if (!isOpen || canvas.current === null) return;
    const element = canvas.current;
    const ratio = window.devicePixelRatio;
    element.width = element.clientWidth * ratio;
    element.height = element.clientHeight * ratio;
    element.getContext("2d")!.scale(ratio, ratio);
    const made = new SignaturePad(element, { penColor: getComputedStyle(element).color });
    made.addEventListener("endStroke", () => setInk(readInk(made, element.clientWidth)));
    pad.current = made;
    return () => made.off();
  }, [isOpen]);
  const clear = () => {
    pad.current?.clear();
    setInk("none");
  };
  return { canvas, pad, ink, clear };
}

interface SignedProps {
  readonly delivery: Delivery;
  readonly signed: EntryOf<"sign">;
  readonly says: readonly string[];
  /** What changed since, in words; null where it still stands for what is there. */
  readonly changes: ReturnType<SignBoxProps["changesSince"]> | null;
  /** Signs here for what another device's signature no longer stands for. */
  readonly onReplace: () => void;
}

function Signed({ delivery, signed, says, changes, onReplace }: SignedProps) {
  const takeBack = () => void syncQueue.add(delivery.id, { kind: "undo", ref: signed.id });
  return (
    <div>
      <SignatureImage sign={signed} className="h-28 w-full border-b border-ink" />
      <p className="font-semibold break-words">{signed.name}</p>
      <Words says={signed.signsFor ?? says} />
      {changes !== null && (
        <div role="alert" className="mt-2 border-l-4 border-magenta pl-3 text-magenta">
          <p>▲ Changed since {signed.name} signed:</p>
          <ul>
            {changes.map((change) => (
              <li key={change.id}>{change.says}</li>
            ))}
          </ul>
        </div>
      )}
      {signed.device === syncQueue.deviceId ? (
        <Button look={changes === null ? "quiet" : "person"} className="mt-2" onClick={takeBack}>
          Sign again
        </Button>
      ) : changes === null ? (
        <p className="mt-2 text-soft">Signed on another device; it can be taken back there.</p>
      ) : (
        <>
          <Button look="person" className="mt-2" onClick={onReplace}>
            Sign again here
          </Button>
          <p className="mt-2 text-soft">Signed on another device, for what stood before.</p>
        </>
      )}
    </div>
  );
}

interface RefusalProps {
  readonly delivery: Delivery;
  readonly name: string;
  readonly person: string | undefined;
  readonly onDone: () => void;
}

function RefusalForm({ delivery, name, person, onDone }: RefusalProps) {
  const [reason, setReason] = useState("");
  return (
    <form
      className="mt-2 flex flex-wrap gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim() === "") return;
        const whom = person === undefined ? {} : { person };
        void syncQueue.add(delivery.id, { kind: "refuse", ...whom, name, reason: reason.trim() });
        onDone();
      }}
    >
      <input
        // biome-ignore lint/a11y/noAutofocus: it was just asked for
        autoFocus
        aria-label={`Why ${name} does not sign`}
        placeholder="Why, in their words"
        value={reason}
        maxLength={500}
        onChange={(event) => setReason(readPlain(event))}
        className="min-h-11 min-w-0 flex-1 basis-48 rounded-md border border-soft bg-panel px-3 placeholder:text-soft"
      />
      <Button type="submit" look="person">
        Save the reason
      </Button>
    </form>
  );
}
