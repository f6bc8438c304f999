import { type ReactNode, useState } from "react";
import type { Vehicle } from "../../core/tow/index.ts";
import { Button } from "../ui/Button.tsx";
import { TextField } from "../ui/fields.tsx";
import { ErrorNotice } from "../ui/Notice.tsx";
import { useTell } from "../ui/tell.ts";

/** How a car is saved: a mutation, of the yard or of an owner's page. */
export interface SaveCar {
  mutate(vehicle: Vehicle): void;
  readonly isPending: boolean;
  readonly isSuccess: boolean;
  readonly error: Error | null;
}

export type ChangeCar = (name: keyof Vehicle, value: number | undefined) => void;

interface CarFormProps {
  readonly vehicle: Vehicle | null;
  readonly save: SaveCar;
  /** Open from the start, until somebody closes it. */
  readonly isOpen: boolean;
  readonly head?: ReactNode;
  readonly children: (draft: Vehicle, change: ChangeCar) => ReactNode;
}

/** The buyer's car: its name, the figures that are asked here, and what else of it is known stays. */
export function CarForm({ vehicle, save, isOpen: isFirstOpen, head, children }: CarFormProps) {
  const tell = useTell();
  // Opened by hand or by having nothing in it: saving does not close it over what was just saved.
  const [isOpen, setOpen] = useState(isFirstOpen);
  const [draft, setDraft] = useState<Vehicle>(vehicle ?? { name: "" });
  const change: ChangeCar = (name, value) =>
    setDraft(({ [name]: _, ...others }) => ({
      name: "",
      ...others,
      ...(value === undefined ? {} : { [name]: value }),
    }));
  return (
    <details
      className="border-t border-rule pt-2"
      open={isOpen}
      onToggle={(event) => setOpen(event.currentTarget.open)}
    >
      <summary className="flex min-h-11 cursor-pointer items-center font-bold">
        {tell("The car{0}", vehicle === null ? "" : `: ${vehicle.name}`)}
      </summary>
      <div className="space-y-3">
        {head}
        <TextField
          label={tell("Car")}
          value={draft.name}
          most={60}
          placeholder={tell("their car or van")}
          onChange={(name) => setDraft((now) => ({ ...now, name }))}
        />
        {children(draft, change)}
        <Button
          disabled={draft.name.trim() === "" || save.isPending}
          onClick={() => save.mutate({ ...draft, name: draft.name.trim() })}
        >
          {tell("Save the car")}
        </Button>
        {save.isSuccess && <p role="status">{tell("Saved.")}</p>}
        {save.error !== null && <ErrorNotice error={save.error} />}
      </div>
    </details>
  );
}
