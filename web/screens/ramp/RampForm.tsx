import { useState } from "react";
import { ulid } from "ulid";
import { gradeOf, type RampSheet, surfaces } from "../../../core/ramp/index.ts";
import { hasPhoneLevel, usePhoneLevel } from "../../ramp/usePhoneLevel.ts";
import { useTowing } from "../../towing/useTowing.ts";
import { Button } from "../../ui/Button.tsx";
import { PickField, TextField, TickField } from "../../ui/fields.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { QuantityField } from "../../ui/QuantityField.tsx";

interface RampFormProps {
  readonly boat: string;
  readonly isOpen: boolean;
  readonly onOpen: (isOpen: boolean) => void;
  readonly onKept: (ramp: string) => void;
}

const levelWords = {
  first: "Lay the phone along the ramp, top uphill, and read",
  reading: "Reading, hold still …",
  second: "Read the second time",
  none: "Try the phone again",
} as const;
const empty = { name: "", surface: "concrete" as RampSheet["surface"], isDriveOn: false, staging: "" };

/** A ramp that is not on the list: its grade by a level held along it and how far that stands off at its end. */
export function RampForm({ boat, isOpen, onOpen, onKept }: RampFormProps) {
  const { setRamp } = useTowing(boat);
  const [draft, setDraft] = useState(empty);
  const [riseM, setRiseM] = useState<number | undefined>(undefined);
  const [runM, setRunM] = useState<number | undefined>(undefined);
  const level = usePhoneLevel((riseOverRun) => {
    setRunM(1);
    setRiseM(Math.round(riseOverRun * 1000) / 1000);
  });
  if (!isOpen) return <Button onClick={() => onOpen(true)}>New ramp</Button>;
  const grade = riseM === undefined || runM === undefined ? null : gradeOf({ riseM, runM });
  const isSteep = grade !== null && (grade > 45 || grade < 1);
  const isWhole = draft.name.trim() !== "" && grade !== null && !isSteep;
  const keep = () => {
    const id = ulid().toLowerCase();
    setRamp.mutate(
      { ...draft, id, name: draft.name.trim(), riseM: riseM!, runM: runM! },
      {
        onSuccess: () => {
          setDraft(empty);
          onOpen(false);
          onKept(id);
        },
      },
    );
  };
  return (
    <section aria-label="New ramp" className="space-y-3 rounded-md border border-ink bg-panel p-3">
      <TextField label="Name" value={draft.name} onChange={(name) => setDraft((now) => ({ ...now, name }))} />
      <QuantityField
        label="Run: length of the level"
        why="Hold a level or a straight board level, one end on the ramp."
        quantity="length"
        value={runM}
        onChange={setRunM}
        least={0.3}
        most={50}
      />
      <QuantityField
        label="Rise: its other end above the ramp"
        quantity="height"
        value={riseM}
        onChange={setRiseM}
        least={0.01}
        most={5}
      />
      {hasPhoneLevel() && (
        <div>
          <Button disabled={level.state === "reading"} onClick={() => void level.read()}>
            {levelWords[level.state]}
          </Button>
          {level.state === "second" && <p className="text-soft">Turn it round, its top downhill, and read again.</p>}
          {level.state === "none" && <p className="text-magenta">▲ This phone tells no tilt. Measure rise and run.</p>}
        </div>
      )}
      {grade !== null && (
        <p className={isSteep ? "text-magenta" : ""} role={isSteep ? "alert" : undefined}>
          {isSteep
            ? `▲ ${grade.toFixed(1)} % is no boat ramp: look at both figures again.`
            : `Grade ${grade.toFixed(1)} %.`}
        </p>
      )}
      <PickField
        label="Surface"
        value={draft.surface}
        options={surfaces.map((surface) => [surface, surface])}
        onChange={(surface) => setDraft((now) => ({ ...now, surface }))}
      />
      <TickField
        label="Driving the boat on is allowed"
        value={draft.isDriveOn}
        onChange={(isDriveOn) => setDraft((now) => ({ ...now, isDriveOn }))}
      />
      <TextField
        label="Where to make ready"
        value={draft.staging}
        most={160}
        isOptional
        onChange={(staging) => setDraft((now) => ({ ...now, staging }))}
      />
      <p className="flex gap-2">
        <Button disabled={!isWhole || setRamp.isPending} onClick={keep}>
          Save
        </Button>
        <Button look="quiet" onClick={() => onOpen(false)}>
          Cancel
        </Button>
      </p>
      {setRamp.error !== null && <ErrorNotice error={setRamp.error} />}
    </section>
  );
}
