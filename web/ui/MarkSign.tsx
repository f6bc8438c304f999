import type { Mark } from "../../core/walk/index.ts";

export const markWords: Record<Mark, string> = {
  told: "explained",
  shown: "shown",
  did: "did it",
  later: "later",
  "not-aboard": "not aboard",
};

/** Our marks: told ◔, shown ◑, did it ●, later ▷, not aboard –, and an open ring. In the colour of the text. */
export function MarkSign({ mark, size = 16 }: { mark: Mark | null; size?: number }) {
  const ring = <circle cx="8" cy="8" r="6.2" fill="none" stroke="currentColor" strokeWidth="1.6" />;
  return (
    <svg aria-hidden width={size} height={size} viewBox="0 0 16 16" className="shrink-0">
      {mark === null && ring}
      {mark === "told" && (
        <>
          {ring}
          <path d="M8 8V1.8A6.2 6.2 0 0 1 14.2 8Z" fill="currentColor" />
        </>
      )}
      {mark === "shown" && (
        <>
          {ring}
          <path d="M8 1.8A6.2 6.2 0 0 1 8 14.2Z" fill="currentColor" />
        </>
      )}
      {mark === "did" && <circle cx="8" cy="8" r="7" fill="currentColor" />}
      {mark === "later" && (
        <path d="M3 1.8L14 8L3 14.2Z" fill="none" stroke="currentColor" strokeWidth="1.6" strokeLinejoin="round" />
      )}
      {mark === "not-aboard" && <path d="M2 8H14" stroke="currentColor" strokeWidth="2" />}
    </svg>
  );
}
