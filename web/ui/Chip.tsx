import type { KeyboardEvent, ReactNode } from "react";

interface ChipProps {
  readonly isPicked: boolean;
  /** One of several where exactly one holds, or by itself on or off. */
  readonly kind?: "one-of" | "on-off";
  /** What needs a person stands in magenta. */
  readonly isUrgent?: boolean;
  readonly onPick: () => void;
  readonly children: ReactNode;
}

const steps: Readonly<Record<string, number>> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 };

/** Of several where one holds, the arrows pick the next; they mean nothing else to the screen meanwhile. */
function goByArrow(event: KeyboardEvent<HTMLButtonElement>) {
  const step = steps[event.key];
  const group = event.currentTarget.closest("[role=radiogroup]");
  if (step === undefined || group === null) return;
  event.preventDefault();
  const chips = [...group.querySelectorAll<HTMLElement>("[role=radio]")];
  const next = chips[(chips.indexOf(event.currentTarget) + step + chips.length) % chips.length]!;
  next.focus();
  next.click();
}

/** A choice under the thumb. Inside a `radiogroup` when it is one of several. */
export function Chip({ isPicked, kind = "one-of", isUrgent = false, onPick, children }: ChipProps) {
  const look = isPicked
    ? isUrgent
      ? "border-magenta bg-magenta text-sheet"
      : "border-ink bg-ink text-sheet"
    : `bg-panel ${isUrgent ? "border-magenta text-magenta" : "border-ink"}`;
  const says =
    kind === "one-of" ? ({ role: "radio", "aria-checked": isPicked } as const) : { "aria-pressed": isPicked };
  return (
    <button
      type="button"
      {...says}
      onClick={onPick}
      onKeyDown={kind === "one-of" ? goByArrow : undefined}
      className={`flex min-h-12 items-center gap-2 rounded-full border px-4 font-text text-base ${look}`}
    >
      {children}
    </button>
  );
}
