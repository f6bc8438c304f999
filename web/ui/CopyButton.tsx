import { useState } from "react";
import { Button } from "./Button.tsx";
import { useTell } from "./tell.ts";

/** Copies a text, and says whether it did: some browsers allow it only over https. */
export function CopyButton({ text, says }: { text: string; says: string }) {
  const tell = useTell();
  const [copied, setCopied] = useState<{ text: string; isDone: boolean } | null>(null);
  const now = copied?.text === text ? copied : null;
  const copy = () =>
    // Without https there is no clipboard at all.
    Promise.resolve(navigator.clipboard?.writeText(text) ?? Promise.reject(new Error("no clipboard"))).then(
      () => setCopied({ text, isDone: true }),
      () => setCopied({ text, isDone: false }),
    );
  return (
    <>
      <Button onClick={() => void copy()}>{now?.isDone === true ? tell("Copied") : says}</Button>
      {now?.isDone === false && (
        <span role="alert" className="min-h-11 content-center text-soft">
          {tell("This browser does not copy here: press on the text and copy it by hand.")}
        </span>
      )}
    </>
  );
}
