import type { MeterKind } from "../../core/rig/index.ts";
import { Refused } from "../app/client.ts";
import type { Letter } from "../offline/letterbox.ts";
import { letterbox, useLetters } from "../offline/useLetters.ts";
import { Button } from "../ui/Button.tsx";
import { ErrorNotice } from "../ui/Notice.tsx";
import { findQuestion, HoursQuestion } from "./HoursQuestion.tsx";

interface LettersProps {
  readonly about: string;
  /** Of each engine, what its meter counts: it decides what is asked. */
  readonly engines: readonly { readonly id: string; readonly meter?: MeterKind | undefined }[];
}

/** Hours and runs that lie on this device until there is signal; what the yard asked about one of them since. */
export function LettersHere({ about, engines }: LettersProps) {
  const letters = useLetters(about);
  if (letters.length === 0) return null;
  return (
    <ul aria-label="Kept on this device" className="my-3 border-l-4 border-amber bg-panel px-3">
      {letters.map((letter) => (
        <li key={letter.id} className="border-b border-rule py-2 last:border-0">
          <p className="flex flex-wrap items-center gap-x-3">
            <span>
              <strong>{letter.says}</strong>{" "}
              {letter.refusal === null
                ? "is kept on this device and goes to the yard when there is signal."
                : "was not taken by the yard."}
            </span>
            <button
              type="button"
              className="min-h-11 underline"
              aria-label={`Take back: ${letter.says}`}
              onClick={() => void letterbox.takeBack(letter.id)}
            >
              Take it back
            </button>
          </p>
          {letter.refusal !== null && <Refusal letter={letter} engines={engines} />}
        </li>
      ))}
    </ul>
  );
}

function Refusal({ letter, engines }: { letter: Letter; engines: LettersProps["engines"] }) {
  const refused = new Refused(letter.refusal!);
  const question = findQuestion(refused);
  if (question === null || !("hours" in letter.body))
    return (
      <ErrorNotice error={refused}>
        <Button className="mt-2" onClick={() => void letterbox.answer(letter.id, {})}>
          Send it again
        </Button>
      </ErrorNotice>
    );
  const { engine } = letter.body;
  return (
    <HoursQuestion
      question={question}
      meter={engines.find(({ id }) => id === engine)?.meter}
      isBusy={false}
      onAnswer={(answer) => void letterbox.answer(letter.id, { answer })}
      onLeave={() => void letterbox.takeBack(letter.id)}
    />
  );
}
