import { useState } from "react";
import type { Rig } from "../../core/rig/index.ts";
import { type TowCheckSheet, tongueByLever, tongueByMoving } from "../../core/tow/index.ts";
import { say } from "../ui/amounts.ts";
import { QuantityField } from "../ui/QuantityField.tsx";
import { SliderField } from "../ui/SliderField.tsx";

/** How tongue weight is measured with what there is, and how moving gear changes it. */
export function TongueWeight({ rig, check }: { rig: Rig; check: TowCheckSheet }) {
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
        Tongue weight
      </h2>
      <p className="border-t border-ink py-2">
        Level ground, wheels chocked, loaded as for the road. Never under the tongue.{" "}
        {trailer.tongueKg === undefined
          ? "It is not on the boat sheet yet: enter there what you measure."
          : `On the boat sheet: ${say(trailer.tongueKg, "mass")}.`}
      </p>
      <ul className="list-disc space-y-1 pl-5">
        <li>Two scales under a board, the coupler between them: add both, less the board.</li>
        <li>
          A public scale: trailer on the car, only the trailer's wheels on the plate; then unhitched, all of it. The
          difference is the tongue.
        </li>
        <li>One bathroom scale and a beam: the coupler stands on the beam close to the support, the scale far away.</li>
      </ul>
      <div className="mt-3 grid gap-3 sm:grid-cols-3">
        <QuantityField
          label="Scale shows"
          quantity="mass"
          value={scaleKg}
          onChange={setScaleKg}
          least={1}
          most={300}
          isOptional
        />
        <QuantityField
          label="Coupler to support"
          quantity="height"
          value={supportM}
          onChange={setSupportM}
          least={0.05}
          most={2}
        />
        <QuantityField
          label="Coupler to scale"
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
          = <strong className="num">{say(lever, "mass")}</strong> of tongue weight.
        </p>
      )}
      {trailer.tongueKg !== undefined && check.answer !== null && (
        <div className="mt-4">
          {gearKg > 0 && (
            <SliderField
              label={`Move the gear (${say(gearKg, "mass")}) forward or aft`}
              value={movedM}
              says={movedM === 0 ? "as it is" : `${say(Math.abs(movedM), "length")} ${movedM > 0 ? "forward" : "aft"}`}
              least={-3}
              most={3}
              step={0.25}
              onChange={setMovedM}
            />
          )}
          <SliderField
            label="Move the winch post, and the boat with it"
            value={postM}
            says={postM === 0 ? "as it is" : `${say(Math.abs(postM), "length")} ${postM > 0 ? "forward" : "aft"}`}
            least={-0.5}
            most={0.5}
            step={0.05}
            onChange={setPostM}
          />
          <p aria-live="polite">
            Tongue {say(Math.max(0, after), "mass")}, {((after / check.answer.towedKg) * 100).toFixed(1)} % of what is
            towed{after <= 0 ? ": the tongue lifts, never tow like that" : ""}.
          </p>
        </div>
      )}
    </section>
  );
}
