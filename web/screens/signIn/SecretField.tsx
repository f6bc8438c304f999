import { Eye, EyeOff } from "lucide-react";
import { type ComponentProps, useId, useState } from "react";

interface SecretFieldProps extends Omit<ComponentProps<"input">, "type" | "id"> {
  readonly label: string;
  readonly why?: string;
  readonly error?: string | undefined;
}

/** A password, hidden until one wants to see what was typed. Pasting is welcome. */
export function SecretField({ label, why, error, className = "mt-4", ...input }: SecretFieldProps) {
  const id = useId();
  const [isShown, setShown] = useState(false);
  const Sign = isShown ? EyeOff : Eye;
  return (
    <div className={className}>
      <label htmlFor={id}>{label}</label>
      <div className="relative mt-1">
        <input
          {...input}
          id={id}
          type={isShown ? "text" : "password"}
          autoCapitalize="none"
          spellCheck={false}
          aria-invalid={error !== undefined}
          aria-describedby={why === undefined ? undefined : `${id}-why`}
          className="block min-h-12 w-full rounded-md border border-soft bg-panel px-3 pr-12 aria-invalid:border-magenta"
        />
        <button
          type="button"
          aria-label={isShown ? "Hide what is typed" : "Show what is typed"}
          aria-pressed={isShown}
          className="absolute inset-y-0 right-0 grid w-12 place-items-center text-soft"
          onClick={() => setShown(!isShown)}
        >
          <Sign aria-hidden className="size-5" />
        </button>
      </div>
      {why !== undefined && (
        <p id={`${id}-why`} className="text-sm text-soft">
          {why}
        </p>
      )}
      {error !== undefined && <p className="text-magenta">▲ {error}</p>}
    </div>
  );
}
