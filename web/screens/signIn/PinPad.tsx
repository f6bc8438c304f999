import { useState } from "react";
import { pinDigits } from "../../app/held.ts";
import { Button } from "../../ui/Button.tsx";

interface PinPadProps {
  /** What the PIN is for, as the heading says it. */
  readonly label: string;
  readonly action: string;
  readonly error?: string | null;
  readonly onDone: (pin: string) => void;
}

const keys = ["1", "2", "3", "4", "5", "6", "7", "8", "9"] as const;

/** Digits under the thumb, large enough for a wet one; a keyboard works as well. */
export function PinPad({ label, action, error = null, onDone }: PinPadProps) {
  const [pin, setPin] = useState("");
  const add = (digit: string) => setPin((now) => (now + digit).slice(0, pinDigits.most));
  const submit = () => {
    if (pin.length < pinDigits.least) return;
    setPin("");
    onDone(pin);
  };
  return (
    <form
      className="max-w-72"
      onSubmit={(event) => {
        event.preventDefault();
        submit();
      }}
    >
      <label className="block">
        {label}
        <input
          type="password"
          inputMode="numeric"
          autoComplete="off"
          value={pin}
          maxLength={pinDigits.most}
          aria-invalid={error !== null}
          className="num mt-1 block min-h-12 w-full rounded-md border border-soft bg-panel px-3 text-2xl tracking-[0.4em]"
          onChange={(event) => setPin(event.target.value.replace(/\D/g, ""))}
        />
      </label>
      {error !== null && (
        <p role="alert" className="text-magenta">
          ▲ {error}
        </p>
      )}
      <div className="mt-3 grid grid-cols-3 gap-2">
        {keys.map((key) => (
          <PadKey key={key} says={key} onPress={() => add(key)} />
        ))}
        <PadKey says="⌫" label="Take the last digit back" onPress={() => setPin((now) => now.slice(0, -1))} />
        <PadKey says="0" onPress={() => add("0")} />
        <Button type="submit" look="primary" className="min-h-14" disabled={pin.length < pinDigits.least}>
          {action}
        </Button>
      </div>
    </form>
  );
}

function PadKey({ says, label = says, onPress }: { says: string; label?: string; onPress: () => void }) {
  return (
    <button
      type="button"
      aria-label={label}
      className="num min-h-14 rounded-md border border-soft bg-panel text-xl hover:bg-shoal"
      onClick={onPress}
    >
      {says}
    </button>
  );
}
