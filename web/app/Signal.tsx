import { useSyncStatus } from "../offline/useSync.ts";
import { describeError } from "../ui/errorWords.ts";
import { count, formatClock } from "../ui/words.ts";

/** So many answers in a row that are none before it is said: one slow moment of the server is nobody's business. */
const patience = 4;

/** Signal, what waits to sync, when the last was sent; and plainly what is wrong, where something is. */
export function Signal() {
  const { unsent, others, lastSentAtMs, hasSignal, refusal, failures, storageFault } = useSyncStatus();
  const waiting = unsent === 0 ? null : `${unsent} waiting to sync`;
  if (storageFault !== null)
    return (
      <span role="status" className="text-magenta">
        ▲ This tablet cannot save{waiting === null ? "" : `: ${waiting}`}. Stay on this page until all is synced.
      </span>
    );
  if (refusal !== null && unsent > 0 && failures === 0)
    return (
      <span role="status" className="text-magenta" title={describeError(refusal)}>
        ▲ {waiting}: not taken. {describeError(refusal)}
      </span>
    );
  if (failures >= patience)
    return (
      <span role="status" className="text-magenta">
        ▲ {waiting ?? "The server has trouble"}: tried {failures} times.{" "}
        {refusal === null ? "It keeps trying." : describeError(refusal)}
      </span>
    );
  // On a tablet held upright the boat's name needs the room.
  const last = lastSentAtMs !== null && (
    <span className="md:max-lg:hidden">
      {waiting === null && hasSignal ? " " : " · last synced "}
      {formatClock(lastSentAtMs)}
    </span>
  );
  // Browsers keep nothing for offline on an address without https; this machine's own is as good.
  const isKept = window.isSecureContext !== false;
  const theirs = others.map(({ name, count: n }) => `${count(n, "is", "are")} ${name}'s, sent when they sign in`);
  return (
    <span role="status" className="text-soft">
      {!isKept && <span className="text-magenta">▲ No https: offline is off. </span>}
      {hasSignal && waiting === null
        ? "All synced"
        : [hasSignal ? null : "no signal", waiting, ...theirs].filter((part) => part !== null).join(" · ")}
      {last}
    </span>
  );
}
