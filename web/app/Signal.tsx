import { useJournalStatus } from "../offline/useJournal.ts";
import { useLetterCount } from "../offline/useLetters.ts";
import { describeError } from "../ui/errorWords.ts";
import { formatClock } from "../ui/words.ts";

/** Signal, what is kept here unsent, and when the last was sent. */
export function Signal() {
  const { unsent, lastSentAtMs, hasSignal, refusal } = useJournalStatus();
  const letters = useLetterCount();
  const kept = unsent + letters === 0 ? null : `${unsent + letters} kept on this tablet`;
  if (refusal !== null && unsent > 0)
    return (
      <span role="status" className="text-magenta" title={describeError(refusal)}>
        ▲ {kept}: not taken
      </span>
    );
  const last = lastSentAtMs === null ? null : `last sent ${formatClock(lastSentAtMs)}`;
  const sent = lastSentAtMs === null ? "nothing unsent" : `all sent ${formatClock(lastSentAtMs)}`;
  return (
    <span role="status" className="whitespace-nowrap text-soft">
      {hasSignal && kept === null
        ? sent
        : [hasSignal ? "sending" : "no signal", kept, last].filter(Boolean).join(" · ")}
    </span>
  );
}
