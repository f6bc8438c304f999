import { Navigate, useLocation, useNavigate } from "react-router";
import { getFront, setPin } from "../../app/held.ts";
import { PinPad } from "./PinPad.tsx";

/** Whoever has just signed in on a shared tablet chooses what opens their name there. */
export function PinScreen() {
  const navigate = useNavigate();
  const { state } = useLocation() as { state: { from?: string } | null };
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
        onDone={(pin) => {
          setPin(front, pin);
          void navigate(state?.from ?? "/", { replace: true });
        }}
      />
    </main>
  );
}
