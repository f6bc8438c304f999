import type { Tell } from "../../core/language/index.ts";
import type { Vehicle } from "../../core/tow/index.ts";
import { say } from "../ui/amounts.ts";
import { NumberField } from "../ui/fields.tsx";
import { QuantityField } from "../ui/QuantityField.tsx";
import { useTell } from "../ui/tell.ts";
import { CarForm, type SaveCar } from "./CarForm.tsx";
import { type PlatePlace, PlatesDrawing, plateNumbers } from "./PlatesDrawing.tsx";

type MassName = Exclude<keyof Vehicle, "name" | "ballMm" | "pins" | "hitchToRearAxleM" | "wadeLimitM">;

const masses: readonly (readonly [MassName, string, string, PlatePlace | null])[] = [
  ["kg", "The car itself, with its driver", "papers, or a public scale", "papers"],
  ["loadKg", "People and luggage beside", "what rides along on the day", null],
  ["payloadKg", "May carry", "plate in the driver's door", "door"],
  ["towLimitKg", "May tow, braked", "papers, or plate in the door", "papers"],
  ["brakelessLimitKg", "May tow, unbraked", "papers", "papers"],
  ["tongueLimitKg", "May bear on the ball", "papers, or plate at the hitch", "hitch"],
  ["combinedLimitKg", "Car and trailer together", "papers, or plate in the door", "door"],
  ["hitchLimitKg", "The hitch receiver may take", "plate under the rear bumper", "hitch"],
  ["ballLimitKg", "The ball may take", "stamped on top of it", "ball"],
];
/** "Place 3 on the drawing: plate under the rear bumper." */
const sayWhere = (where: string, place: PlatePlace | null, tell: Tell) =>
  place === null ? `${tell(where)}.` : tell("{0} on the drawing: {1}.", plateNumbers[place], tell(where));

/** A figure of pounds read as kilograms is more than twice too much. */
const heavyCarKg = 4500;

/** Nobody rides along, or nothing may be towed unbraked; every other plate says something. */
const mayBeNone: ReadonlySet<MassName> = new Set<MassName>(["loadKg", "brakelessLimitKg"]);

/** The buyer's car, once, as its plates say it; what was not found yet stays empty. */
export function CarPlates({ save, vehicle }: { save: SaveCar; vehicle: Vehicle | null }) {
  const tell = useTell();
  return (
    <CarForm vehicle={vehicle} save={save} isOpen={vehicle === null} head={<Head />}>
      {(draft, change) => (
        <>
          <QuantityField
            label={tell("Ball, across")}
            why={sayWhere("stamped on top of it", "ball", tell)}
            quantity="ball"
            value={draft.ballMm}
            onChange={(value) => change("ballMm", value)}
            least={20}
            most={120}
            isOptional
          />
          <NumberField
            label={tell("Pins of its socket")}
            why={sayWhere("count them", "socket", tell)}
            value={draft.pins}
            onChange={(value) => change("pins", value)}
            least={0}
            most={20}
            isWhole
            isOptional
          />
          {masses.map(([name, label, where, place]) => (
            <QuantityField
              key={name}
              label={tell(label)}
              why={sayWhere(where, place, tell)}
              quantity="mass"
              value={draft[name]}
              onChange={(value) => change(name, value)}
              least={mayBeNone.has(name) ? 0 : 1}
              most={10_000}
              isOptional
            />
          ))}
          {draft.kg !== undefined && draft.kg > heavyCarKg && (
            <p role="alert" className="text-amber">
              {tell(
                "● {0} is more than most cars weigh. Is it in pounds? Choose the unit beside the number.",
                say(draft.kg, "mass"),
              )}
            </p>
          )}
        </>
      )}
    </CarForm>
  );
}

function Head() {
  const tell = useTell();
  return (
    <>
      <PlatesDrawing />
      <p className="text-soft">
        {tell("Read what you find; what is left empty is said to be unread, and nothing is made up.")}
      </p>
    </>
  );
}
