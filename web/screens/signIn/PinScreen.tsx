import { useState } from "react";
import { Navigate, useLocation, useNavigate } from "react-router";
import { ask, Refused } from "../../app/client.ts";
import { forgetPin, getFront, setPin } from "../../app/held.ts";
import { describeError } from "../../ui/errorWords.ts";
import { PinPad } from "./PinPad.tsx";

/** Whoever has just signed in on a shared tablet chooses what opens their name there. */
export function PinScreen() {
  const navigate = useNavigate();
  const { state } = useLocation() as { state: { from?: string } | null };
  const [error, setError] = useState<string | null>(null);
  const front = getFront();
  if (front === null) return <Navigate to="/sign-in" replace />;
  return (
    <main className="mx-auto grid min-h-dvh max-w-md content-center p-6">
      <p className="head text-3xl font-extrabold">Ravik</p>
      <h1 className="mt-1 text-xl font-bold">Choose a PIN for this tablet</h1>
      <p className="mb-3 text-soft">
        4 to 8 digits. It opens your name here, without signal too, and nothing anywhere else. Your marks carry your
        name.
      </p>
      <PinPad
        label="New PIN"
        action="Keep"
        error={error}
        onDone={(pin) => {
          // The server is told what this PIN unlocks: from then on it opens nothing here without it.
          void ask("setPin", { body: { key: setPin(front, pin) } }).then(
            () => navigate(state?.from ?? "/", { replace: true }),
            (reason: unknown) => {
              forgetPin(front);
              setError(
                reason instanceof Refused && reason.code === "no-signal"
                  ? "The yard must hear of your PIN once. Try again when there is signal."
                  : describeError(reason),
              );
            },
          );
        }}
      />
    </main>
  );
}
