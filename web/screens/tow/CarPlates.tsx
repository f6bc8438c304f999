import { useState } from "react";
import type { Vehicle } from "../../../core/tow/index.ts";
import { useTowing } from "../../towing/useTowing.ts";
import { Button } from "../../ui/Button.tsx";
import { NumberField, TextField } from "../../ui/fields.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { QuantityField } from "../../ui/QuantityField.tsx";

type MassName = Exclude<keyof Vehicle, "name" | "ballMm" | "pins" | "hitchToRearAxleM" | "wadeLimitM">;

const masses: readonly (readonly [MassName, string, string])[] = [
  ["kg", "The car itself, with its driver", "papers, or a public scale"],
  ["loadKg", "People and luggage beside", "what rides along on the day"],
  ["payloadKg", "May carry", "plate in the driver's door"],
  ["towLimitKg", "May tow, braked", "papers or plate in the door"],
  ["brakelessLimitKg", "May tow, unbraked", "papers"],
  ["tongueLimitKg", "May bear on the ball", "papers, or plate at the hitch"],
  ["combinedLimitKg", "Car and trailer together", "papers or plate in the door"],
  ["hitchLimitKg", "The hitch receiver may take", "plate under the rear bumper"],
  ["ballLimitKg", "The ball may take", "stamped on top of it"],
];

/** Nobody rides along, or nothing may be towed unbraked; every other plate says something. */
const mayBeNone: ReadonlySet<MassName> = new Set<MassName>(["loadKg", "brakelessLimitKg"]);

/** The buyer's car, once, as its plates say it; what was not found yet stays empty. */
export function CarPlates({ boat, vehicle }: { boat: string; vehicle: Vehicle | null }) {
  const { setVehicle } = useTowing(boat);
  const [draft, setDraft] = useState<Vehicle>(vehicle ?? { name: "" });
  const change = (name: keyof Vehicle, value: number | undefined) =>
    setDraft(({ [name]: _, ...others }) => ({
      name: "",
      ...others,
      ...(value === undefined ? {} : { [name]: value }),
    }));
  return (
    <details className="border-t border-rule pt-2" open={vehicle === null}>
      <summary className="flex min-h-11 cursor-pointer items-center font-bold">
        The car{vehicle === null ? "" : `: ${vehicle.name}`}
      </summary>
      <div className="space-y-3">
        <TextField
          label="Car"
          value={draft.name}
          most={60}
          placeholder="their estate car"
          onChange={(name) => setDraft((now) => ({ ...now, name }))}
        />
        <QuantityField
          label="Ball, across"
          why="Stamped on top of it."
          quantity="ball"
          value={draft.ballMm}
          onChange={(value) => change("ballMm", value)}
          least={20}
          most={120}
          isOptional
        />
        <NumberField
          label="Pins of its socket"
          value={draft.pins}
          onChange={(value) => change("pins", value)}
          least={0}
          most={20}
          isWhole
          isOptional
        />
        {masses.map(([name, label, why]) => (
          <QuantityField
            key={name}
            label={label}
            why={why}
            quantity="mass"
            value={draft[name]}
            onChange={(value) => change(name, value)}
            least={mayBeNone.has(name) ? 0 : 1}
            most={10_000}
            isOptional
          />
        ))}
        <Button
          disabled={draft.name.trim() === "" || setVehicle.isPending}
          onClick={() => setVehicle.mutate({ ...draft, name: draft.name.trim() })}
        >
          Save the car
        </Button>
        {setVehicle.isSuccess && <p role="status">Saved.</p>}
        {setVehicle.error !== null && <ErrorNotice error={setVehicle.error} />}
      </div>
    </details>
  );
}
