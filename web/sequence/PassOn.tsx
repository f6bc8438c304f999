import { useState } from "react";
import { Button } from "../ui/Button.tsx";
import { QrCode } from "../ui/QrCode.tsx";
import { useTell } from "../ui/tell.ts";
import type { Steps } from "./useSteps.ts";

/** Passes what is done to the other phone, by its camera: for where there is no signal. With signal both see each other anyway. */
export function PassOn({ steps }: { steps: Steps }) {
  const tell = useTell();
  const [isOpen, setOpen] = useState(false);
  return (
    <section aria-label={tell("The other phone")} className="mt-4">
      {steps.heard > 0 && (
        <p className="text-soft">{tell("The other phone passed {0} steps on to this one.", steps.heard)}</p>
      )}
      <Button aria-expanded={isOpen} className="min-h-12" onClick={() => setOpen(!isOpen)}>
        {tell(isOpen ? "Hide the code" : "Pass it to the other phone")}
      </Button>
      {isOpen && (
        <div className="mt-3">
          <QrCode text={steps.passTo()} label={tell("What is done so far, for the other phone's camera")} />
          <p className="mt-2 break-all text-sm text-soft select-all" data-testid="pass-address">
            {steps.passTo()}
          </p>
          <p className="mt-2 max-w-prose text-soft">
            {tell(
              "Point the other phone's camera at it. It opens the other one's part, with every step that is done here. It works without signal if Ravik was opened on that phone before.",
            )}
          </p>
        </div>
      )}
    </section>
  );
}
