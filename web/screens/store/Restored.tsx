import { queryOptions, useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { RestoredSheet } from "../../../api/index.ts";
import type { Instant } from "../../../core/dates/index.ts";
import { ask } from "../../app/client.ts";
import { meQuery, queryClient } from "../../app/queries.ts";
import { Button } from "../../ui/Button.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { storeDay } from "../../ui/storeTime.ts";
import { count, formatClock, formatDayAndYear } from "../../ui/words.ts";

export const restoredQuery = queryOptions({ queryKey: ["restored"], queryFn: () => ask("restored") });
const formatInstant = (at: Instant) => `${formatDayAndYear(storeDay(Date.parse(at)))}, ${formatClock(at)}`;
const jobWords: Readonly<Record<string, string>> = {
  hello: "First message after the handover",
  "break-in-end": "Message that the break-in ends",
};

/** After a restore: what is missing, and what waits until the owner lets it go on. Nothing for any other store. */
export function Restored() {
  const { data } = useQuery(restoredQuery);
  return data?.restored == null ? null : <Standing sheet={data.restored} />;
}

function Standing({ sheet }: { sheet: RestoredSheet }) {
  const { why, at, of, released, missingPhotos } = sheet;
  // Let go on and with nothing missing there is no more to be said.
  if (released !== null && missingPhotos.length === 0) return null;
  return (
    <section aria-labelledby="restored" className="my-6 border-l-[7px] border-amber pl-4">
      <h2 id="restored" className="text-lg font-bold">
        {why === "behind" ? "This store has lost something" : "Put back from a backup"}
      </h2>
      <p className="max-w-prose">
        {why === "behind" ? (
          <>
            On {formatInstant(at)} this store held less than it had told its tablets it had: its folder is an older
            copy, or the end of what it wrote was cut off. The last that is here came on{" "}
            <strong>{formatInstant(of)}</strong>.
          </>
        ) : (
          <>
            On {formatInstant(at)} this store was put back to what it was on <strong>{formatInstant(of)}</strong>.
          </>
        )}{" "}
        Tablets and phones send again what they still hold of the time since, as each is opened with a signal. What was
        sealed since is sealed anew: give its buyer papers with the new seal. What was written on this server alone
        since then is gone: bookings, changed boats, services, hours, what owners wrote.
      </p>
      {released === null ? (
        <Held sheet={sheet} />
      ) : (
        <p className="mt-1 text-soft">
          {released.by} let jobs and messages go on, {formatInstant(released.at)}.
        </p>
      )}
      {missingPhotos.length > 0 && <MissingPhotos photos={missingPhotos} />}
    </section>
  );
}

function Held({ sheet: { jobs, messages } }: { sheet: RestoredSheet }) {
  const release = useMutation({
    mutationFn: (due: "do" | "leave-out") => ask("release", { body: { due } }),
    onSuccess: async (answer) => {
      queryClient.setQueryData(restoredQuery.queryKey, answer);
      await queryClient.invalidateQueries({ queryKey: meQuery.queryKey });
    },
  });
  const waits = [
    ...(jobs.length > 0
      ? [count(jobs.length, "message that the server writes by itself", "messages that the server writes by itself")]
      : []),
    ...(messages.waiting > 0
      ? [count(messages.waiting, "message that somebody wrote", "messages that somebody wrote")]
      : []),
  ];
  return (
    <>
      <h3 className="mt-3 font-semibold">Nothing is sent until you say so</h3>
      <p className="max-w-prose">
        {waits.length === 0
          ? "Nothing waits just now."
          : `${waits.join(" and ")} ${jobs.length + messages.waiting === 1 ? "waits" : "wait"}.`}{" "}
        What went out after the backup was made is not known here: sent now, it may reach a buyer twice.
      </p>
      {jobs.length > 0 && (
        <ul aria-label="What the server would write" className="mt-1">
          {jobs.map(({ id, kind, boat, boatName, dueAtMs }) => (
            <li key={id}>
              {jobWords[kind] ?? kind}:{" "}
              <Link to={`/boats/${boat}`} className="inline-flex min-h-11 items-center underline">
                {boatName}
              </Link>
              , <span className="num">due {formatDayAndYear(storeDay(dueAtMs))}</span>
            </li>
          ))}
        </ul>
      )}
      {messages.waiting + messages.ready > 0 && (
        <p>
          <Link to="/messages" className="inline-flex min-h-11 items-center underline">
            Look through the messages
          </Link>{" "}
          and stop what has gone out already
          {messages.ready > 0 && `; ${count(messages.ready, "stood", "stood")} ready to be sent by hand`}.
        </p>
      )}
      <p className="mt-2 flex flex-wrap gap-3">
        <Button
          look="primary"
          disabled={release.isPending}
          onClick={() => release.mutate(jobs.length > 0 ? "leave-out" : "do")}
        >
          {jobs.length > 0 ? "Go on, without those" : "Go on"}
        </Button>
        {jobs.length > 0 && (
          <Button disabled={release.isPending} onClick={() => release.mutate("do")}>
            Go on, and send them
          </Button>
        )}
      </p>
      {release.error !== null && <ErrorNotice error={release.error} />}
    </>
  );
}

function MissingPhotos({ photos }: { photos: RestoredSheet["missingPhotos"] }) {
  const [isSure, setSure] = useState(false);
  const giveUp = useMutation({
    mutationFn: () => ask("giveUpPhotos"),
    onSuccess: (answer) => queryClient.setQueryData(restoredQuery.queryKey, answer),
  });
  return (
    <>
      <h3 className="mt-3 font-semibold">{count(photos.length, "photo is missing", "photos are missing")}</h3>
      <p className="max-w-prose">
        A tablet that has not sent it yet will; one that had sent it no longer has it. A handover that was closed waits
        for its photos: once every tablet was here, give up those that are still missing, and it is sealed without them.
        Its record says so.
      </p>
      <ul aria-label="Missing photos" className="mt-1">
        {photos.map(({ photo, delivery, boatName, by, at }) => (
          <li key={photo}>
            <Link to={`/deliveries/${delivery}`} className="inline-flex min-h-11 items-center underline">
              {boatName}
            </Link>
            , taken by {by}, <span className="num">{formatInstant(at)}</span>
          </li>
        ))}
      </ul>
      <p className="mt-2 flex flex-wrap gap-3">
        <Button
          look={isSure ? "person" : "plain"}
          disabled={giveUp.isPending}
          onClick={() => (isSure ? giveUp.mutate() : setSure(true))}
        >
          {isSure ? "Give them up for good" : "Give them up"}
        </Button>
        {isSure && <Button onClick={() => setSure(false)}>Wait for them</Button>}
      </p>
      {giveUp.error !== null && <ErrorNotice error={giveUp.error} />}
    </>
  );
}
