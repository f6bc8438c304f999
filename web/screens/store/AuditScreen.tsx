import { useInfiniteQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { AuditKind } from "../../../api/index.ts";
import { addressOf, ask } from "../../app/client.ts";
import { Button, linkLook } from "../../ui/Button.tsx";
import { fieldLook } from "../../ui/fields.tsx";
import { ErrorNotice, Waiting } from "../../ui/Notice.tsx";
import { storeDay } from "../../ui/storeTime.ts";
import { formatClock, formatDayAndYear } from "../../ui/words.ts";

const kindWords: Record<AuditKind, string> = {
  "sign-in": "Sign-in",
  staff: "Staff",
  settings: "Settings",
  library: "Library",
  packs: "Packs",
  boats: "Boats",
  opened: "Opened",
};

/** Who did what to the store itself, the latest first. Nothing here can be changed, by anybody. */
export function AuditScreen() {
  const [find, setFind] = useState("");
  const query = useInfiniteQuery({
    queryKey: ["audit", find],
    queryFn: ({ pageParam }) =>
      ask("audit", { query: { find, ...(pageParam === null ? {} : { before: String(pageParam) }) } }),
    initialPageParam: null as number | null,
    getNextPageParam: ({ lines }) => (lines.length < pageOf ? null : lines.at(-1)!.number),
    placeholderData: (before) => before,
  });
  const lines = query.data?.pages.flatMap((page) => page.lines);
  return (
    <main className="px-4 pt-6 pb-10 md:px-8">
      <h1 className="text-2xl font-bold">Who did what</h1>
      <div className="mt-3 flex flex-wrap items-center gap-3">
        <input
          type="search"
          aria-label="Find in the log"
          placeholder="A name, a boat, a day: 2026-06-13"
          value={find}
          className={`${fieldLook} max-w-md`}
          onChange={(event) => setFind(event.target.value)}
        />
        <a href={`${addressOf("auditCsv")}?${new URLSearchParams({ find })}`} className={linkLook("plain")}>
          Save as CSV
        </a>
      </div>
      {query.error !== null && <ErrorNotice error={query.error} />}
      {lines === undefined && query.error === null && <Waiting what="what was done" />}
      {lines?.length === 0 && <p className="mt-4 border-t border-ink py-4 text-soft">Nothing found.</p>}
      {lines !== undefined && lines.length > 0 && (
        <ol className="mt-4 border-t border-ink">
          {lines.map(({ number, at, name, kind, what, about }) => (
            <li
              key={number}
              className="grid gap-x-4 border-b border-rule py-2 md:grid-cols-[11rem_6rem_12rem_1fr] md:items-baseline"
            >
              <span className="num text-soft">
                {formatDayAndYear(storeDay(at))} {formatClock(at)}
              </span>
              <span className="head text-sm text-soft">{kindWords[kind]}</span>
              <span className="font-semibold">{name === "" ? "nobody signed in" : name}</span>
              <span className="min-w-0 break-words">
                {what}
                {about !== "" && <span className="block text-sm text-soft">{about}</span>}
              </span>
            </li>
          ))}
        </ol>
      )}
      {query.hasNextPage && (
        <Button className="mt-4" disabled={query.isFetchingNextPage} onClick={() => void query.fetchNextPage()}>
          Show earlier
        </Button>
      )}
    </main>
  );
}

/** As many as the server sends at once. */
const pageOf = 200;
