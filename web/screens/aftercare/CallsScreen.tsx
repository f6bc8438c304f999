import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { DockCallSheet } from "../../../api/index.ts";
import { isOneOf, keepers } from "../../../api/roles.ts";
import { ask } from "../../app/client.ts";
import { dockCallsQuery, faultsQuery, queryClient } from "../../app/queries.ts";
import { useFoundBoats } from "../../app/useFoundBoats.ts";
import { useMe } from "../../app/useMe.ts";
import { CallList } from "../../calls/CallList.tsx";
import { Button } from "../../ui/Button.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { fieldLook } from "../../ui/fields.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { readPlain } from "../../ui/readPlain.ts";
import { storeDay } from "../../ui/storeTime.ts";
import { formatDayAndYear } from "../../ui/words.ts";
import { AftercareTabs } from "./AftercareTabs.tsx";

/** The telephone: whose boat it is and what it does, the calls that are open, what the others came to, and what they teach. */
export function CallsScreen() {
  const calls = useQuery(dockCallsQuery);
  return (
    <main className="px-4 pt-3 pb-10 md:px-8">
      <AftercareTabs />
      <OnThePhone />
      <Fetched query={calls} what="the calls">
        {(sheet) => (
          <div className="mt-8 grid gap-x-10 gap-y-8 lg:grid-cols-2">
            <div className="space-y-8">
              <section>
                <h2 className="text-lg font-bold">Open calls</h2>
                {sheet.open.length === 0 ? (
                  <p className="border-t border-ink py-2 text-soft">No call is open.</p>
                ) : (
                  <CallList label="Open calls" calls={sheet.open} />
                )}
              </section>
              <section>
                <h2 className="text-lg font-bold">What it was</h2>
                {sheet.closed.length === 0 ? (
                  <p className="border-t border-ink py-2 text-soft">
                    No cause has been found yet. Calls that end in one will be listed here.
                  </p>
                ) : (
                  <CallList label="What it was" calls={sheet.closed} />
                )}
              </section>
            </div>
            <Learned sheet={sheet} />
          </div>
        )}
      </Fetched>
    </main>
  );
}

const mostShown = 6;

/** Whoever answers finds the boat by a few letters and takes along what the buyer says. */
function OnThePhone() {
  const [who, setWho] = useState("");
  const [says, setSays] = useState("");
  const { list, find, error } = useFoundBoats(who);
  const found = find === "" ? [] : (list?.boats ?? []).slice(0, mostShown);
  const more = says.trim() === "" ? "" : `?says=${encodeURIComponent(says.trim())}`;
  return (
    <section aria-labelledby="phone">
      <h1 id="phone" className="text-2xl font-bold">
        Somebody is on the phone
      </h1>
      <div className="mt-2 grid gap-3 md:grid-cols-2">
        <label className="block">
          <span className="head font-semibold">Whose boat is it?</span>
          <input
            type="search"
            maxLength={100}
            value={who}
            placeholder="Buyer, boat or hull number"
            onChange={(event) => setWho(readPlain(event))}
            className={`${fieldLook} mt-1`}
          />
        </label>
        <label className="block">
          <span className="head font-semibold">What do they say?</span>
          <input
            maxLength={80}
            value={says}
            placeholder="beeps but won't start"
            onChange={(event) => setSays(readPlain(event))}
            className={`${fieldLook} mt-1`}
          />
        </label>
      </div>
      {error !== null && <ErrorNotice error={error} />}
      {find !== "" && list !== undefined && found.length === 0 && (
        <p role="status" className="mt-2 text-soft">
          No boat and no buyer has “{find}” in it.
        </p>
      )}
      <ul aria-label="Boats found" className={found.length === 0 ? "" : "mt-3 border-t border-ink"}>
        {found.map(({ id, name, hull, buyers }) => (
          <li key={id} className="border-b border-rule">
            <Link to={`/boats/${id}/finder${more}`} className="flex min-h-12 flex-wrap items-center gap-x-3 py-1">
              <span className="head font-bold underline">{name}</span>
              <span className="text-soft">{hull}</span>
              <span className="break-words">{buyers}</span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

const sayShare = (share: number) => `${(share * 100).toFixed(share < 0.1 ? 1 : 0)} %`;

/** How likely each kind of fault is here, beside what ships; and the way back to what ships. */
function Learned({ sheet }: { sheet: DockCallSheet }) {
  const faults = useQuery(faultsQuery);
  const kinds = new Map(faults.data?.kinds.map((kind) => [kind.id, kind]));
  const ofStore = sheet.learned
    .filter(({ family, kind }) => family === null && kinds.has(kind))
    .sort((a, b) => b.causes - a.causes || b.calls - a.calls);
  const caused = ofStore.filter(({ causes }) => causes > 0);
  const counted = ofStore.reduce((sum, { causes }) => sum + causes, 0);
  return (
    <section aria-labelledby="learned">
      <h2 id="learned" className="text-lg font-bold">
        What our calls teach
      </h2>
      <p className="border-t border-ink py-2">
        {counted === 0
          ? "No closed call counts yet: the finder goes by the likelihoods that ship."
          : `${counted === 1 ? "One closed call counts" : `${counted} closed calls count`}${
              sheet.since === null ? "" : ` since ${formatDayAndYear(storeDay(sheet.since))}`
            }. The finder looks first where our own boats fail; topics that buyers call about are taken further in the next walks, and the Library says which.`}
      </p>
      {caused.length > 0 && (
        <table className="w-full">
          <thead>
            <tr className="border-b border-rule text-left">
              <th>Found at fault</th>
              <th className="text-right">Times</th>
              <th className="text-right">As shipped</th>
              <th className="text-right">Here</th>
            </tr>
          </thead>
          <tbody>
            {caused.map(({ kind, calls, causes, prior }) => (
              <tr key={kind} className="border-b border-rule">
                <td className="py-1 pr-3">{kinds.get(kind)!.label.replace("{label}", "…")}</td>
                <td className="num py-1 text-right whitespace-nowrap">
                  {causes} of {calls}
                </td>
                <td className="num py-1 text-right">{sayShare(kinds.get(kind)!.prior)}</td>
                <td className="num py-1 text-right font-bold">{sayShare(prior)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {counted > 0 && <LearnAnew />}
    </section>
  );
}

function LearnAnew() {
  const me = useMe();
  const [isAsked, setAsked] = useState(false);
  const forget = useMutation({
    mutationFn: () => ask("forgetCalls"),
    onSuccess: () => {
      setAsked(false);
      void queryClient.invalidateQueries({ queryKey: dockCallsQuery.queryKey });
      void queryClient.invalidateQueries({ queryKey: ["library"] });
    },
  });
  if (!isOneOf(keepers, me.role)) return null;
  return (
    <div className="mt-3">
      {isAsked ? (
        <p className="flex flex-wrap items-center gap-3 border-l-4 border-caution pl-3">
          Calls until now stay where they are, but count no more: not for what fails, nor for what is taught further.
          <Button disabled={forget.isPending} onClick={() => forget.mutate()}>
            Start over from today
          </Button>
          <Button look="quiet" onClick={() => setAsked(false)}>
            Cancel
          </Button>
        </p>
      ) : (
        <Button look="quiet" onClick={() => setAsked(true)}>
          Forget what calls taught
        </Button>
      )}
      {forget.error !== null && <ErrorNotice error={forget.error} />}
    </div>
  );
}
