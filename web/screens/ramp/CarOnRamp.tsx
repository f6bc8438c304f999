import type { Vehicle } from "../../../core/tow/index.ts";
import { CarForm } from "../../towing/CarForm.tsx";
import { useTowing } from "../../towing/useTowing.ts";
import { QuantityField } from "../../ui/QuantityField.tsx";

/** What the ramp asks of the buyer's car: two lengths. */
export function CarOnRamp({ boat, vehicle }: { boat: string; vehicle: Vehicle | null }) {
  const { setVehicle } = useTowing(boat);
  return (
    <CarForm vehicle={vehicle} save={setVehicle} isOpen={false}>
      {(draft, change) => (
        <>
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
        </>
      )}
    </CarForm>
  );
}
