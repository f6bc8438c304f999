import type { ReactNode } from "react";

interface ChipProps {
  readonly isPicked: boolean;
  /** One of several where exactly one holds, or by itself on or off. */
  readonly kind?: "one-of" | "on-off";
  /** What needs a person stands in magenta. */
  readonly isUrgent?: boolean;
  readonly onPick: () => void;
  readonly children: ReactNode;
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
      className={`flex min-h-12 items-center gap-2 rounded-full border px-4 font-text text-base ${look}`}
    >
      {children}
    </button>
  );
}
