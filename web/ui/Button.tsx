import type { ButtonHTMLAttributes } from "react";

type Look = "primary" | "plain" | "quiet" | "person";

const looks: Record<Look, string> = {
  primary: "bg-helm text-onhelm border-helm",
  plain: "bg-panel text-ink border-ink",
  quiet: "border-transparent bg-transparent text-ink underline decoration-rule underline-offset-4",
  person: "bg-panel text-magenta border-magenta",
};

/** A button that says what happens. At least 44 px high. */
export function Button({
  look = "plain",
  className = "",
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { look?: Look }) {
  return (
    <button
      type="button"
      {...rest}
      className={`head inline-flex min-h-11 items-center justify-center gap-2 rounded-md border px-4 font-semibold disabled:opacity-50 ${looks[look]} ${className}`}
    />
  );
}

/** The same look on a link. */
export function linkLook(look: Look): string {
  return `head inline-flex min-h-11 items-center justify-center gap-2 rounded-md border px-4 font-semibold no-underline ${looks[look]}`;
}
