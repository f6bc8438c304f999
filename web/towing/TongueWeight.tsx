import { useState } from "react";
import type { Tell } from "../../core/language/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import { type TowCheckSheet, tongueByLever, tongueByMoving } from "../../core/tow/index.ts";
import { say } from "../ui/amounts.ts";
import { QuantityField } from "../ui/QuantityField.tsx";
import { SliderField } from "../ui/SliderField.tsx";
import { useTell } from "../ui/tell.ts";

/** How tongue weight is measured with what there is, and how moving gear changes it. */
export function TongueWeight({ rig, check }: { rig: Rig; check: TowCheckSheet }) {
  const tell = useTell();
  const [scaleKg, setScaleKg] = useState<number | undefined>(undefined);
  const [supportM, setSupportM] = useState<number | undefined>(0.3);
  const [scaleM, setScaleM] = useState<number | undefined>(0.9);
  const [movedM, setMovedM] = useState(0);
  const [postM, setPostM] = useState(0);
  const trailer = rig.trailer!;
  const axleToHitchM = trailer.hitchToTransomM - (trailer.fenderFromTransomM ?? 2);
  const gearKg = check.ask.boat.gearKg;
  const boatKg = check.answer === null ? 0 : check.answer.towedKg - check.ask.trailer.kg;
  const byMoving = tongueByMoving(gearKg, movedM, axleToHitchM) + tongueByMoving(boatKg, postM, axleToHitchM);
  const after = (trailer.tongueKg ?? 0) + byMoving;
  const lever =
    scaleKg === undefined || supportM === undefined || scaleM === undefined
      ? null
      : tongueByLever(scaleKg, supportM, scaleM);
  return (
    <section aria-labelledby="tongue" className="mt-6">
      <h2 id="tongue" className="text-lg font-bold">
        {tell("Tongue weight")}
      </h2>
      <p className="border-t border-ink py-2">
        {tell("Level ground, wheels chocked, loaded as for the road. Never under the tongue.")}{" "}
        {trailer.tongueKg === undefined
          ? tell("It is not on the boat sheet yet: enter there what you measure.")
          : tell("On the boat sheet: {0}.", say(trailer.tongueKg, "mass"))}
      </p>
      <ul className="list-disc space-y-1 pl-5">
        <li>{tell("Two scales under a board, the coupler between them: add both, less the board.")}</li>
        <li>
          {tell(
            "A public scale: trailer on the car, only the trailer's wheels on the plate; then unhitched, all of it. The difference is the tongue.",
          )}
        </li>
        <li>
          {tell(
            "One bathroom scale and a beam: the coupler stands on the beam close to the support, the scale far away.",
          )}
        </li>
      </ul>
      <div className="mt-3 grid gap-3 sm:grid-cols-3">
        <QuantityField
          label={tell("Scale shows")}
          quantity="mass"
          value={scaleKg}
          onChange={setScaleKg}
          least={1}
          most={300}
          isOptional
        />
        <QuantityField
          label={tell("Coupler to support")}
          quantity="height"
          value={supportM}
          onChange={setSupportM}
          least={0.05}
          most={2}
        />
        <QuantityField
          label={tell("Coupler to scale")}
          quantity="height"
          value={scaleM}
          onChange={setScaleM}
          least={0.05}
          most={4}
        />
      </div>
      {lever !== null && (
        <p role="status" className="mt-2">
          {say(scaleKg!, "mass")} × ({say(supportM!, "height")} + {say(scaleM!, "height")}) / {say(supportM!, "height")}{" "}
          = <strong className="num">{say(lever, "mass")}</strong> {tell("of tongue weight.")}
        </p>
      )}
      {trailer.tongueKg !== undefined && check.answer !== null && (
        <div className="mt-4">
          {gearKg > 0 && (
            <SliderField
              label={tell("Move the gear ({0}) forward or aft", say(gearKg, "mass"))}
              value={movedM}
              says={sayMove(movedM, tell)}
              least={-3}
              most={3}
              step={0.25}
              onChange={setMovedM}
            />
          )}
          <SliderField
            label={tell("Move the winch post, and the boat with it")}
            value={postM}
            says={sayMove(postM, tell)}
            least={-0.5}
            most={0.5}
            step={0.05}
            onChange={setPostM}
          />
          <p aria-live="polite">
            {tell(
              after <= 0
                ? "Tongue {0}, {1} % of what is towed: the tongue lifts, never tow like that."
                : "Tongue {0}, {1} % of what is towed.",
              say(Math.max(0, after), "mass"),
              ((after / check.answer.towedKg) * 100).toFixed(1),
            )}
          </p>
        </div>
      )}
    </section>
  );
}

function sayMove(movedM: number, tell: Tell): string {
  if (movedM === 0) return tell("as it is");
  const by = say(Math.abs(movedM), "length");
  return movedM > 0 ? tell("{0} forward", by) : tell("{0} aft", by);
}
