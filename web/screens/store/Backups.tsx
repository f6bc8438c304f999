import { queryOptions, useMutation, useQuery } from "@tanstack/react-query";
import type { BackupSheet } from "../../../api/index.ts";
import type { Instant } from "../../../core/dates/index.ts";
import { ask } from "../../app/client.ts";
import { queryClient } from "../../app/queries.ts";
import { Button } from "../../ui/Button.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { storeDay } from "../../ui/storeTime.ts";
import { formatClock, formatDayAndYear } from "../../ui/words.ts";

const backupsQuery = queryOptions({ queryKey: ["backups"], queryFn: () => ask("backups") });
const formatInstant = (at: Instant) => `${formatDayAndYear(storeDay(Date.parse(at)))}, ${formatClock(at)}`;
const askAgainMs = 2000;
const hourMs = 3_600_000;
/** How long ago, to the hour, and to the day where it is long. */
function sayAge(at: Instant): string {
  const hours = Math.floor((Date.now() - Date.parse(at)) / hourMs);
  if (hours < 1) return "less than an hour ago";
  return hours < 48 ? `${hours} h ago` : `${Math.floor(hours / 24)} days ago`;
}
const shown = 8;
type Backup = BackupSheet["backups"][number];

/** When the store was last copied and proved, where to, and what is wrong where it was not. */
export function Backups() {
  const query = useQuery({
    ...backupsQuery,
    refetchInterval: ({ state: { data } }) => (data?.isRunning === true ? askAgainMs : false),
  });
  return (
    <section aria-labelledby="backups" className="mt-8 border-t border-rule pt-4">
      <h2 id="backups" className="text-lg font-bold">
        Backup
      </h2>
      <Fetched query={query} what="the backups">
        {(sheet) => <Standing sheet={sheet} />}
      </Fetched>
    </section>
  );
}

function Standing({ sheet: { folder, isSameDisk, isRunning, failed, backups } }: { sheet: BackupSheet }) {
  const begin = useMutation({
    mutationFn: () => ask("backUp"),
    onSuccess: (sheet) => queryClient.setQueryData(backupsQuery.queryKey, sheet),
  });
  if (folder === null)
    return (
      <p className="max-w-prose border-l-4 border-amber pl-3">
        <strong>No backup is made.</strong> Whoever runs the machine names a folder on another disk in{" "}
        <code>RAVIK_BACKUP</code>, and one is made and checked every night.
      </p>
    );
  const [last, before] = backups;
  return (
    <>
      {last === undefined ? (
        <p className="border-l-4 border-amber pl-3">
          <strong>There is none yet.</strong> One is made and checked every night.
        </p>
      ) : (
        <p>
          The last one is of <strong>{formatInstant(last.at)}</strong>, {sayAge(last.at)}: {last.boats} boats,{" "}
          {last.entries} entries, {(last.bytes / 1e6).toFixed(1)} MB. It was opened and its seals were checked.
        </p>
      )}
      {failed !== null && (
        <p role="alert" className="mt-1 text-magenta">
          ▲ The try of {formatInstant(failed.at)} failed: {failed.why}
        </p>
      )}
      {isSameDisk && (
        <p className="mt-1 text-amber">
          ◷ {folder} is on the same disk as the store: what takes the disk takes both. Name a folder on another one.
        </p>
      )}
      <p className="mt-2 flex flex-wrap items-center gap-3">
        <Button disabled={isRunning || begin.isPending} onClick={() => begin.mutate()}>
          {isRunning ? "Making one …" : "Back up now"}
        </Button>
        <span className="break-all text-soft">to {folder}</span>
      </p>
      {begin.error !== null && <ErrorNotice error={begin.error} />}
      {begin.isSuccess && !isRunning && failed === null && last !== undefined && (
        <p role="status" className="mt-1 border-l-4 border-helm pl-3">
          Done: {last.name} is made and checked. {sayChange(last, before)}
        </p>
      )}
      {last !== undefined && <KeyNote hasKey={last.hasKey} />}
      {backups.length > 1 && (
        <ul aria-label="Backups that are kept" className="num mt-2 text-soft">
          {backups.slice(0, shown).map(({ name, at, bytes }) => (
            <li key={name}>
              {formatInstant(at)}, {(bytes / 1e6).toFixed(1)} MB
            </li>
          ))}
          {backups.length > shown && <li>and {backups.length - shown} older ones</li>}
        </ul>
      )}
    </>
  );
}

/** What the last one has that the one before it has not. */
function sayChange(last: Backup, before: Backup | undefined): string {
  if (before === undefined) return "It is the first.";
  const count = (n: number, one: string, many: string) => `${Math.abs(n)} ${n === 1 || n === -1 ? one : many}`;
  const more = [
    [last.entries - before.entries, "entry", "entries"],
    [last.boats - before.boats, "boat", "boats"],
  ] as const;
  const said = more.flatMap(([n, one, many]) => (n === 0 ? [] : `${count(n, one, many)} ${n > 0 ? "more" : "fewer"}`));
  return said.length === 0
    ? "Boats and entries are as many as in the one before."
    : `Against the one before: ${said.join(", ")}.`;
}

/** A backup without the key brings everything back but the hand that signs: said beside it, with how to put it in. */
function KeyNote({ hasKey }: { hasKey: boolean }) {
  if (hasKey)
    return (
      <p className="mt-2 text-soft">The store's key is in it, locked by your passphrase. Keep that apart from it.</p>
    );
  return (
    <p className="mt-2 max-w-prose border-l-4 border-amber pl-3">
      <strong>The store's key is not in it.</strong> Put back from it, the store goes on and its records still verify,
      but it signs new ones with another key. To have it in: whoever runs the machine sets a passphrase of twelve
      letters or more as <code>RAVIK_BACKUP_PASSPHRASE</code> and starts Ravik again, or keeps a copy of{" "}
      <code>store-key.pem</code> in a safe place.
    </p>
  );
}
