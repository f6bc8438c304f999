import { useState } from "react";
import type { TowingSheet } from "../../../api/index.ts";
import type { TowRules } from "../../../core/tow/index.ts";
import { useTowing } from "../../towing/useTowing.ts";
import { Button } from "../../ui/Button.tsx";
import { NumberField, TextField } from "../../ui/fields.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { QuantityField } from "../../ui/QuantityField.tsx";
import { splitLines } from "../../ui/splitLines.ts";
import { storeDay } from "../../ui/storeTime.ts";

const percentOf = (share: number) => Math.round(share * 1000) / 10;

interface RulesProps {
  readonly boat: string;
  readonly rules: TowRules;
  readonly sheet: TowingSheet;
  readonly onRemove: () => void;
  readonly isRemoving: boolean;
}

/** The rules of one's own region, as somebody of the store has looked them up today: kept beside those that ship. */
export function RulesForm({ boat, rules, sheet, onRemove, isRemoving }: RulesProps) {
  const { setTowRules } = useTowing(boat);
  const isOurs = sheet.ownRules.includes(rules.id);
  const [name, setName] = useState(isOurs ? rules.name : "Our region");
  const [least, setLeast] = useState<number | undefined>(percentOf(rules.tongueShareMin));
  const [most, setMost] = useState<number | undefined>(percentOf(rules.tongueShareMax));
  const [brakesAboveKg, setBrakes] = useState<number | undefined>(rules.brakesAboveKg);
  const [notes, setNotes] = useState(rules.notes.join("\n"));
  const isWhole =
    name.trim() !== "" && least !== undefined && most !== undefined && least < most && brakesAboveKg !== undefined;
  const { error } = setTowRules;
  return (
    <details>
      <summary className="flex min-h-11 cursor-pointer items-center underline">
        {isOurs ? "Change these rules" : "Write our own rules from these"}
      </summary>
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (!isWhole) return;
          setTowRules.mutate({
            id: isOurs ? rules.id : createId(name, sheet.rules),
            name: name.trim(),
            isExample: false,
            tongueShareMin: least / 100,
            tongueShareMax: most / 100,
            brakesAboveKg,
            checkedOn: storeDay(Date.now()),
            notes: splitLines(notes, 200, 8),
          });
        }}
      >
        <TextField label="Name of the rules" value={name} most={60} onChange={setName} />
        <NumberField label="Tongue weight, least %" value={least} onChange={setLeast} least={0} most={50} />
        <NumberField label="Tongue weight, most %" value={most} onChange={setMost} least={0} most={50} />
        {least !== undefined && most !== undefined && least >= most && (
          <p className="text-magenta">▲ The most must be above the least.</p>
        )}
        <QuantityField
          label="Brakes from"
          quantity="mass"
          value={brakesAboveKg}
          onChange={setBrakes}
          least={1}
          most={10_000}
        />
        <TextField
          label="Chains, plug, width, plate: one to a line"
          value={notes}
          most={1600}
          isLong
          isOptional
          onChange={setNotes}
        />
        <p className="text-soft">Saving says that you have checked them against the law today.</p>
        <p className="flex flex-wrap gap-2">
          <Button type="submit" disabled={!isWhole || setTowRules.isPending}>
            Save the rules
          </Button>
          {isOurs && (
            <Button look="quiet" disabled={isRemoving} onClick={onRemove}>
              Delete them
            </Button>
          )}
        </p>
        {setTowRules.isSuccess && <p role="status">Saved.</p>}
        {error !== null && <ErrorNotice error={error} />}
      </form>
    </details>
  );
}

/** A name as an id that none of the others has: "Our region" → "our-region", "our-region-2". */
function createId(name: string, others: readonly TowRules[]): string {
  const base =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-+|-+$/g, "")
      .slice(0, 50) || "rules";
  const taken = new Set(others.map(({ id }) => id));
  for (let i = 1; ; i++) {
    const id = i === 1 ? base : `${base}-${i}`;
    if (!taken.has(id)) return id;
  }
}
