import { useState } from "react";
import type { Vehicle } from "../../../core/tow/index.ts";
import { useTowing } from "../../towing/useTowing.ts";
import { Button } from "../../ui/Button.tsx";
import { TextField } from "../../ui/fields.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { QuantityField } from "../../ui/QuantityField.tsx";

/** What the ramp asks of the buyer's car: two lengths. */
export function CarOnRamp({ boat, vehicle }: { boat: string; vehicle: Vehicle | null }) {
  const { setVehicle } = useTowing(boat);
  const [draft, setDraft] = useState<Vehicle>(vehicle ?? { name: "" });
  const change = (name: "hitchToRearAxleM" | "wadeLimitM", value: number | undefined) =>
    setDraft(({ [name]: _, ...others }) => (value === undefined ? others : { ...others, [name]: value }));
  return (
    <details className="border-t border-rule pt-2">
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
          label="Ball to the middle of the rear wheel"
          quantity="height"
          value={draft.hitchToRearAxleM}
          onChange={(value) => change("hitchToRearAxleM", value)}
          least={0.3}
          most={4}
          isOptional
        />
        <QuantityField
          label="How deep its rear wheels may stand"
          why="At most to the hubs, unless the car's manual says more."
          quantity="height"
          value={draft.wadeLimitM}
          onChange={(value) => change("wadeLimitM", value)}
          least={0.05}
          most={1.5}
          isOptional
        />
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
