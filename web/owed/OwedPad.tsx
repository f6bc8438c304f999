import { type MouseEvent, useEffect, useRef, useState } from "react";
import type { LocalDate } from "../../core/dates/index.ts";
import type { Place, Rig } from "../../core/rig/index.ts";
import { type EntryOf, findSeverity, type Severity, severities } from "../../core/walk/index.ts";
import type { NewEntry } from "../offline/syncQueue.ts";
import { DeckShapes, paperOf, WrongSign } from "../plan/DeckPlan.tsx";
import { Button } from "../ui/Button.tsx";
import { Chip } from "../ui/Chip.tsx";
import { DateInput } from "../ui/DateInput.tsx";
import { PhotoRow, TakePhoto } from "../ui/Photos.tsx";
import { readPlain } from "../ui/readPlain.ts";
import { severityWords } from "./owedWords.ts";

type Sort = "snag" | "promise" | "extra";

interface OwedPadProps {
  readonly rig: Rig;
  /** The topic it was found at; null for none. */
  readonly topic: string | null;
  /** What it says to begin with. */
  readonly note?: string;
  /** The snag that is put right, as it stands; left out for a new one. */
  readonly correcting?: Correcting;
  /** Where one stands, until a place is touched. */
  readonly place: Place | null;
  readonly staff: readonly string[];
  readonly onKeep: (entry: NewEntry, photos: readonly string[]) => void;
  /** It was no snag at all; only of one that is put right. What another found is taken back for a reason, which prints. */
  readonly onTakeBack?: (reason: string | null) => void;
  /** Another found it. */
  readonly isTheirs?: boolean;
  readonly onDone: () => void;
}

/** A snag as it stands: whose it is and by when is the last that was said of it. */
export interface Correcting {
  readonly snag: EntryOf<"snag">;
  readonly owner: string | null;
  readonly due: LocalDate | null;
  readonly photos: readonly { readonly photo: string }[];
}

const sorts: readonly (readonly [Sort, string])[] = [
  ["snag", "▲ Something is wrong"],
  ["promise", "◇ Promised"],
  ["extra", "◇ Sold, not fitted"],
];

/** What is wrong or owed: in one line, how bad, where, whose it is, by when, with a photo. Escape leaves it. */
export function OwedPad(props: OwedPadProps) {
  const {
    rig,
    topic,
    note: first = "",
    correcting,
    place,
    staff,
    onKeep,
    onTakeBack,
    isTheirs = false,
    onDone,
  } = props;
  const [reason, setReason] = useState<string | null>(null);
  const before = correcting?.snag;
  const [sort, setSort] = useState<Sort>("snag");
  const [note, setNote] = useState(before?.note ?? first);
  const [severity, setSeverity] = useState<Severity>(before === undefined ? "before-leaving" : findSeverity(before));
  const [owner, setOwner] = useState(correcting?.owner ?? "");
  const [due, setDue] = useState<LocalDate | null>(correcting?.due ?? null);
  const [at, setAt] = useState(before?.place ?? place);
  const [photos, setPhotos] = useState<readonly string[]>([]);
  const [isDateMissing, setDateMissing] = useState(false);
  const day = useRef<HTMLInputElement>(null);
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => input.current?.focus(), []);
  const keep = () => {
    const said = note.trim();
    if (said === "") return input.current?.focus();
    // What is to be fixed by a date has one.
    if (sort === "snag" && severity === "by-date" && due === null) {
      setDateMissing(true);
      return day.current?.focus();
    }
    onKeep(
      createOwed({ sort, severity, owner, staff, due, at, topic: before?.topic ?? topic, corrects: before?.id }, said),
      photos,
    );
    onDone();
  };
  return (
    <form
      className="border-t border-ink bg-sheet px-3 py-3 text-base md:grid md:grid-cols-[1fr_auto] md:gap-x-5 md:px-5"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
      onKeyDown={(event) => {
        if (event.key === "Escape") onDone();
      }}
    >
      <div className="min-w-0 space-y-2">
        {before === undefined && <SortField sort={sort} onChange={setSort} />}
        <input
          ref={input}
          aria-label={sort === "snag" ? "What is wrong" : "What is owed"}
          value={note}
          maxLength={1000}
          onChange={(event) => setNote(readPlain(event))}
          placeholder={sort === "snag" ? "What is wrong, in one line" : "What they will get, in one line"}
          className="min-h-14 w-full rounded-lg border border-soft bg-panel px-4 text-[20px] placeholder:text-soft"
        />
        {sort === "snag" && <SeverityField severity={severity} onChange={setSeverity} />}
        <div className="flex flex-wrap items-center gap-2">
          <WhoseField owner={owner} staff={staff} onChange={setOwner} />
          <label className="flex min-h-12 items-center gap-2">
            <span className="text-soft">by</span>
            <DateInput
              ref={day}
              value={due}
              aria-invalid={isDateMissing && due === null}
              onDate={setDue}
              className="num min-h-12 rounded-md border border-soft bg-panel px-2"
            />
          </label>
          {isDateMissing && due === null && (
            <span role="alert" className="text-magenta">
              ▲ By which day?
            </span>
          )}
          <TakePhoto says="Photo" onTaken={(photo) => setPhotos([...photos, photo])} />
          <span className="ml-auto flex gap-2">
            {onTakeBack !== undefined && (
              <Button look="quiet" className="min-h-14" onClick={() => (isTheirs ? setReason("") : onTakeBack(null))}>
                Not a snag
              </Button>
            )}
            <Button look="quiet" className="min-h-14" onClick={onDone}>
              Cancel
            </Button>
            <Button type="submit" look="primary" className="min-h-14 px-6 text-lg">
              {before !== undefined ? "Save the change" : sort === "snag" ? "Save the snag" : "Save the promise"}
            </Button>
          </span>
        </div>
        {reason !== null && (
          <div className="mt-2 flex flex-wrap items-center gap-2">
            <input
              aria-label="Why it is no snag"
              placeholder="Why it is no snag: this goes into the record"
              value={reason}
              maxLength={500}
              onChange={(event) => setReason(readPlain(event))}
              className="min-h-14 min-w-0 flex-1 rounded-md border border-soft bg-panel px-3 placeholder:text-soft"
            />
            <Button className="min-h-14" disabled={reason.trim() === ""} onClick={() => onTakeBack?.(reason.trim())}>
              Take it back
            </Button>
          </div>
        )}
        <PhotoRow photos={[...(correcting?.photos ?? []), ...photos.map((photo) => ({ photo }))]} says={note} />
      </div>
      <PlacePicker rig={rig} at={at} onPick={setAt} />
    </form>
  );
}

const stepM = 0.2;
/** Metres forward and to starboard. */
const arrows: Record<string, readonly [forward: number, starboard: number]> = {
  ArrowUp: [1, 0],
  ArrowDown: [-1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};
const round = (metres: number) => Math.round(metres * 100) / 100;

/** The boat small: a touch says where it is. */
function PlacePicker({ rig, at, onPick }: { rig: Rig; at: Place | null; onPick: (at: Place) => void }) {
  const box = paperOf(rig);
  const pick = (event: MouseEvent<HTMLButtonElement>) => {
    // A press of the key is no place.
    if (event.detail === 0) return;
    const { left, top, width, height } = event.currentTarget.getBoundingClientRect();
    const scale = Math.max(box.width / width, box.height / height);
    const x = box.x + box.width / 2 + (event.clientX - left - width / 2) * scale;
    const y = box.y + box.height / 2 + (event.clientY - top - height / 2) * scale;
    onPick({ xM: round(-y), yM: round(x) });
  };
  return (
    <figure className="max-md:hidden">
      <button
        type="button"
        className="block h-44 w-24 cursor-crosshair bg-buff"
        aria-label="Where it is: touch, or move with the arrow keys"
        onClick={pick}
        onKeyDown={(event) => {
          const step = arrows[event.key];
          if (step === undefined) return;
          event.preventDefault();
          const { xM, yM } = at ?? { xM: 0, yM: 0 };
          onPick({ xM: round(xM + step[0] * stepM), yM: round(yM + step[1] * stepM) });
        }}
      >
        <svg viewBox={`${box.x} ${box.y} ${box.width} ${box.height}`} className="size-full" aria-hidden>
          <DeckShapes rig={rig} />
          {at !== null && <WrongSign place={at} sizeM={0.6} />}
        </svg>
      </button>
      <figcaption className="text-center text-sm text-soft">touch where</figcaption>
    </figure>
  );
}

interface OwedFacts {
  readonly sort: Sort;
  readonly severity: Severity;
  readonly owner: string;
  readonly staff: readonly string[];
  readonly due: LocalDate | null;
  readonly at: Place | null;
  readonly topic: string | null;
  /** The snag that it puts right. */
  readonly corrects: string | undefined;
}

function createOwed({ sort, severity, owner, staff, due, at, topic, corrects }: OwedFacts, said: string): NewEntry {
  const more = {
    ...(at === null ? {} : { place: at }),
    ...(owner.trim() === "" ? {} : { owner: nameWhole(owner.trim(), staff) }),
    ...(due === null ? {} : { due }),
  };
  return sort === "snag"
    ? {
        kind: "snag",
        topic,
        note: said,
        stops: severity === "stop",
        ...(corrects === undefined ? {} : { corrects }),
        ...(severity === "stop" ? {} : { how: severity }),
        ...more,
      }
    : { kind: "promise", note: said, isExtra: sort === "extra", ...more };
}

/** As the store writes them who is meant, however it was typed: by first name, in small letters. One person is not two. */
function nameWhole(typed: string, staff: readonly string[]): string {
  const plain = (name: string) => name.toLowerCase().replace(/\s+/g, " ").trim();
  const whole = staff.find((name) => plain(name) === plain(typed));
  const first = staff.filter((name) => plain(name).split(" ")[0] === plain(typed));
  return whole ?? (first.length === 1 ? first[0]! : typed);
}

function SortField({ sort, onChange }: { sort: Sort; onChange: (sort: Sort) => void }) {
  return (
    <div className="flex flex-wrap gap-2" role="radiogroup" aria-label="What it is">
      {sorts.map(([each, says]) => (
        <Chip key={each} isPicked={sort === each} onPick={() => onChange(each)}>
          {says}
        </Chip>
      ))}
    </div>
  );
}

function SeverityField({ severity, onChange }: { severity: Severity; onChange: (severity: Severity) => void }) {
  return (
    <div className="flex flex-wrap gap-2" role="radiogroup" aria-label="How bad">
      {severities.map((each) => (
        <Chip key={each} isPicked={severity === each} isUrgent={each === "stop"} onPick={() => onChange(each)}>
          {severityWords[each]}
        </Chip>
      ))}
    </div>
  );
}

interface WhoseProps {
  readonly owner: string;
  readonly staff: readonly string[];
  readonly onChange: (owner: string) => void;
}

function WhoseField({ owner, staff, onChange }: WhoseProps) {
  return (
    <>
      <label className="flex min-h-12 items-center gap-2">
        <span className="text-soft">Who fixes it</span>
        <input
          list="owed-owners"
          value={owner}
          maxLength={80}
          placeholder="nobody yet"
          onChange={(event) => onChange(readPlain(event))}
          className="min-h-12 w-40 rounded-md border border-soft bg-panel px-3 placeholder:text-soft"
        />
      </label>
      <datalist id="owed-owners">
        {staff.map((name) => (
          <option key={name}>{name}</option>
        ))}
      </datalist>
    </>
  );
}
