import type { LocalDate } from "../../core/dates/index.ts";
import { listAnswers, type ReadingAnswer, type ReadingSource } from "../../core/hours/index.ts";
import type { MeterKind } from "../../core/rig/index.ts";
import { Refused } from "../app/client.ts";
import { Button } from "../ui/Button.tsx";
import { useReader } from "../ui/tell.ts";
import { formatDayAndYear } from "../ui/words.ts";

export const readingWords: Record<ReadingAnswer, string> = {
  "typing-slip": "an earlier reading was a wrong entry",
  "meter-changed": "the meter was changed",
  "key-left-on": "the key was left on",
  "as-read": "right as it is",
};
export const sourceWords: Record<ReadingSource, string> = {
  walk: "at the handover",
  phone: "by phone",
  owner: "on their page",
  photo: "photo of the meter",
  file: "from a run",
  workshop: "in the workshop",
};

export interface Asked {
  readonly code: "hours-fall" | "hours-leap";
  readonly got: number;
  readonly before: number;
  readonly on: LocalDate;
  /** Nothing was read before: it is a lot for a boat that is handed over. */
  readonly isFirst?: boolean;
}

/** The question behind a refusal of hours that do not follow; null for any other error. */
export function findQuestion(error: unknown): Asked | null {
  if (!(error instanceof Refused) || (error.code !== "hours-fall" && error.code !== "hours-leap")) return null;
  const { got, before, on } = error.facts as unknown as { got: number; before: number; on: LocalDate };
  return { code: error.code, got, before, on };
}

const answerWords: Record<ReadingAnswer, string> = {
  "typing-slip": "The earlier reading was a wrong entry",
  "meter-changed": "The meter was changed",
  "key-left-on": "The key was left on",
  "as-read": "It is right, much was run",
};

interface QuestionProps {
  readonly question: Asked;
  readonly meter: MeterKind | undefined;
  readonly isBusy: boolean;
  readonly onAnswer: (answer: ReadingAnswer) => void;
  /** It was a slip now: type it again. */
  readonly onLeave: () => void;
}

/** Hours that fall or leap: why, in one touch. */
export function HoursQuestion({ question, meter, isBusy, onAnswer, onLeave }: QuestionProps) {
  const reader = useReader();
  const { tell } = reader;
  const { code, got, before, on, isFirst = false } = question;
  return (
    <div role="alert" className="mt-2 border-l-4 border-oncaution bg-caution px-3 py-2 text-oncaution">
      <p>
        <strong className="num">{got} h</strong>{" "}
        {isFirst
          ? tell("is a lot for a boat that is only now being handed over. Why?")
          : code === "hours-fall"
            ? tell("does not fit: {0} h was read on {1}. Why?", before, formatDayAndYear(on, reader))
            : tell("is a lot: {0} h was read on {1}. Why?", before, formatDayAndYear(on, reader))}
      </p>
      <p className="mt-2 flex flex-wrap gap-2">
        {listAnswers(code === "hours-fall" ? "falls" : "leaps", meter).map((answer) => (
          <Button key={answer} disabled={isBusy} onClick={() => onAnswer(answer)}>
            {tell(answerWords[answer])}
          </Button>
        ))}
        <Button look="quiet" onClick={onLeave}>
          {tell("Wrong entry")}
        </Button>
      </p>
    </div>
  );
}
