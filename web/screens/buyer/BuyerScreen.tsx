import { queryOptions, useQuery } from "@tanstack/react-query";
import { type ReactNode, useId, useState } from "react";
import { Link, useParams } from "react-router";
import type { BuyerSheet, ForgottenSheet } from "../../../api/index.ts";
import { addressOf, ask } from "../../app/client.ts";
import { linkLook } from "../../ui/Button.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { count, formatDayAndYear } from "../../ui/words.ts";
import { type BuyerParams, ForgetForm, Kept } from "./ForgetForm.tsx";

const buyerQuery = (params: BuyerParams) =>
  queryOptions({
    queryKey: ["buyer", params.delivery, params.person],
    queryFn: () => ask("buyer", { params: { ...params } }),
    // What was forgotten is nowhere kept, not even here.
    gcTime: 0,
  });

/** Everything this store holds of one buyer: looked at, taken along as a file, forgotten. */
export function BuyerScreen() {
  const { delivery = "", person = "" } = useParams();
  const params = { delivery, person };
  const [done, setDone] = useState<{ name: string; sheet: ForgottenSheet } | null>(null);
  return (
    <main className="max-w-3xl px-4 pt-6 pb-12 md:px-8">
      {done === null ? (
        <Held params={params} onForgotten={(name, sheet) => setDone({ name, sheet })} />
      ) : (
        <Forgotten {...done} />
      )}
    </main>
  );
}

function Held({
  params,
  onForgotten,
}: {
  params: BuyerParams;
  onForgotten: (name: string, sheet: ForgottenSheet) => void;
}) {
  const query = useQuery(buyerQuery(params));
  return (
    <Fetched query={query} what="what is held of them">
      {(sheet) => (
        <>
          <h1 className="text-2xl font-bold break-words">{sheet.name}</h1>
          <p className="text-soft">Everything this store holds of them, by their name.</p>
          <Handovers sheet={sheet} />
          <Boats sheet={sheet} />
          <p className="mt-4">
            {sheet.messages === 0 ? "No message" : count(sheet.messages, "message", "messages")} to them;{" "}
            {sheet.logLines === 0
              ? "the log of who did what does not name them"
              : `${count(sheet.logLines, "line", "lines")} of the log of who did what`}
            .
          </p>
          <section aria-labelledby="as-file" className="mt-6 border-t border-rule pt-4">
            <h2 id="as-file" className="text-lg font-bold">
              As a file
            </h2>
            <p className="mb-2 max-w-prose text-soft">
              For a buyer who asks what you hold: a zip of open files, with their handovers, photos, hours, services and
              messages. Whoever bought with them stands in it too.
            </p>
            <a className={linkLook("plain")} href={addressOf("buyerFile", { ...params })} download>
              Download all of it
            </a>
          </section>
          <ForgetForm params={params} sheet={sheet} onForgotten={(answer) => onForgotten(sheet.name, answer)} />
        </>
      )}
    </Fetched>
  );
}

/** A list under its heading. */
function Part({ title, children }: { title: string; children: ReactNode }) {
  const id = useId();
  return (
    <section aria-labelledby={id} className="mt-4">
      <h2 id={id} className="text-lg font-bold">
        {title}
      </h2>
      <ul className="border-t border-ink">{children}</ul>
    </section>
  );
}

const sealWords = {
  salted: "sealed",
  first: "sealed in the old format",
} as const;

function Handovers({ sheet: { handovers } }: { sheet: BuyerSheet }) {
  return (
    <Part title="Handovers">
      {handovers.map(({ delivery, boatName, date, seal, entries, photos, others }) => (
        <li key={delivery} className="border-b border-rule py-1.5">
          <Link
            to={`/deliveries/${delivery}/record`}
            className="inline-flex min-h-11 items-center font-semibold underline"
          >
            {boatName}, {formatDayAndYear(date)}
          </Link>
          <span className="block text-soft">
            {seal === null ? "not sealed" : sealWords[seal]};{" "}
            {count(entries, "signature or note", "signatures and notes")}, {count(photos, "photo", "photos")}
            {others.length > 0 && `; with ${others.join(" and ")}`}
          </span>
        </li>
      ))}
    </Part>
  );
}

const rowWords: Readonly<Record<string, string>> = {
  readings: "readings of hours",
  services: "services",
  fills: "fills of fuel",
  runs: "engine runs",
  bookings: "workshop slots",
};

function Boats({ sheet: { boats } }: { sheet: BuyerSheet }) {
  return (
    <Part title="Boats">
      {boats.map(({ boat, boatName, isTheirs, phone, email, hasCar, launches, rows, files }) => (
        <li key={boat} className="border-b border-rule py-1.5">
          <Link to={`/boats/${boat}`} className="inline-flex min-h-11 items-center font-semibold underline">
            {boatName}
          </Link>
          <span className="block break-words">
            {isTheirs
              ? [
                  phone === "" ? "no phone" : phone,
                  email === "" ? "no e-mail" : email,
                  ...(hasCar ? ["their car"] : []),
                  ...(launches > 0 ? [count(launches, "launch", "launches")] : []),
                ].join(", ")
              : "Somebody else has it now."}
          </span>
          <span className="block text-soft">
            Stays with the boat:{" "}
            {Object.entries(rows)
              .filter(([, n]) => n > 0)
              .map(([table, n]) => `${n} ${rowWords[table] ?? table}`)
              .join(", ") || "nothing"}
            {files > 0 && `; ${count(files, "paper", "papers")} kept with services, which may name them`}
          </span>
        </li>
      ))}
    </Part>
  );
}

function Forgotten({
  name,
  sheet: { handovers, messages, logLines, stillNamed },
}: {
  name: string;
  sheet: ForgottenSheet;
}) {
  return (
    <section role="status" aria-label="Forgotten">
      <h1 className="text-2xl font-bold break-words">{name} is forgotten</h1>
      <p className="mt-2 max-w-prose">
        Struck from {count(handovers, "handover", "handovers")}, {count(messages, "message", "messages")} and{" "}
        {count(logLines, "line", "lines")} of the log. Sealed records say that it was done, by whom and why.
      </p>
      <Kept />
      {stillNamed.length > 0 && (
        <>
          <h2 className="mt-4 text-lg font-bold">Words that still name them</h2>
          <p className="max-w-prose">In marks, snags and promises, which say what was handed over.</p>
          <ul className="mt-1 border-t border-ink">
            {stillNamed.map(({ delivery, boatName, text }, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: the same words may stand twice in one handover
              <li key={i} className="border-b border-rule py-1.5">
                <Link to={`/deliveries/${delivery}/record`} className="inline-flex min-h-11 items-center underline">
                  {boatName}
                </Link>
                : {text}
              </li>
            ))}
          </ul>
        </>
      )}
      <p className="mt-6">
        <Link to="/" className="inline-flex min-h-11 items-center underline">
          Today
        </Link>
      </p>
    </section>
  );
}
