import type { EntryOf } from "../../core/walk/index.ts";

/** A signature drawn again from its strokes. */
export function SignatureImage({ sign, className = "" }: { sign: EntryOf<"sign">; className?: string }) {
  return (
    <svg
      viewBox={`0 0 ${sign.width} ${sign.height}`}
      className={className}
      role="img"
      aria-label={`Signature of ${sign.name}`}
    >
      {sign.strokes.map((stroke, i) => (
        <polyline
          // biome-ignore lint/suspicious/noArrayIndexKey: a stroke has no name but its place
          key={i}
          points={stroke.join(" ")}
          fill="none"
          stroke="currentColor"
          strokeWidth={sign.width / 160}
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      ))}
    </svg>
  );
}
