import { queryOptions, useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { RetentionRules, RetentionSheet } from "../../../api/index.ts";
import { ask } from "../../app/client.ts";
import { queryClient } from "../../app/queries.ts";
import { Button } from "../../ui/Button.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { PickField } from "../../ui/fields.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { formatDayAndYear } from "../../ui/words.ts";

const retentionQuery = queryOptions({ queryKey: ["retention"], queryFn: () => ask("retention") });
const forGood = "for good";
const shown = 12;

type Rule = keyof RetentionRules;
const inYears = (n: number) => (n === 1 ? "1 year" : `${n} years`);
const rules: readonly { rule: Rule; label: string; why: string; options: readonly (readonly [number, string])[] }[] = [
  {
    rule: "messagesMonths",
    label: "Words of messages",
    why: "That one was sent, when and about what stays.",
    options: [6, 12, 24, 36, 60, 120].map((n) => [n, n < 12 ? `${n} months` : inYears(n / 12)] as const),
  },
  {
    rule: "logMonths",
    label: "Who did what",
    why: "Older lines of the log go.",
    options: [12, 24, 36, 60, 120].map((n) => [n, inYears(n / 12)] as const),
  },
  {
    rule: "buyersYears",
    label: "Buyers who are not heard from",
    why: "They are listed here, for you to forget. No buyer goes by itself.",
    options: [2, 3, 5, 7, 10, 15].map((n) => [n, inYears(n)] as const),
  },
];

/** How long what is kept, and whom that puts before the owner. */
export function Retention() {
  const query = useQuery(retentionQuery);
  return (
    <section aria-labelledby="retention" className="mt-8 border-t border-rule pt-4">
      <h2 id="retention" className="text-lg font-bold">
        How long it is kept
      </h2>
      <Fetched query={query} what="the rules">
        {(sheet) => <Rules sheet={sheet} />}
      </Fetched>
    </section>
  );
}

function Rules({ sheet: { rules: before, quiet } }: { sheet: RetentionSheet }) {
  const [now, setNow] = useState(before);
  const isChanged = JSON.stringify(now) !== JSON.stringify(before);
  const save = useMutation({
    mutationFn: () => ask("setRetention", { body: now }),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: retentionQuery.queryKey }),
  });
  return (
    <>
      <p className="mb-2 max-w-prose text-soft">
        What is older goes in the night after you save. Sealed records stay for good. Your law may say how long you must
        keep what you sold, and how long you may.
      </p>
      <div className="grid gap-x-6 gap-y-3 md:grid-cols-3">
        {rules.map(({ rule, label, why, options }) => (
          <PickField
            key={rule}
            label={label}
            why={why}
            value={String(now[rule] ?? forGood)}
            options={[[forGood, "kept for good"], ...options.map(([n, says]) => [String(n), says] as const)]}
            onChange={(text) => setNow({ ...now, [rule]: text === forGood ? null : Number(text) })}
          />
        ))}
      </div>
      <p className="mt-3 flex flex-wrap items-center gap-3">
        <Button disabled={!isChanged || save.isPending} onClick={() => save.mutate()}>
          Save how long
        </Button>
        {save.isSuccess && !isChanged && <span role="status">Saved.</span>}
      </p>
      {save.error !== null && <ErrorNotice error={save.error} />}
      {before.buyersYears !== null && (
        <>
          <h3 className="mt-4 font-semibold">
            {quiet.length === 0
              ? `Nobody was silent for ${inYears(before.buyersYears)}`
              : `Not heard from for ${inYears(before.buyersYears)}: ${quiet.length}${quiet.length === 500 ? " and more" : ""}`}
          </h3>
          <ul aria-label="Buyers not heard from">
            {quiet.slice(0, shown).map(({ delivery, person, name, boatName, date }) => (
              <li key={`${delivery} ${person}`}>
                <Link
                  to={`/deliveries/${delivery}/buyers/${person}`}
                  className="inline-flex min-h-11 items-center break-words underline"
                >
                  {name}
                </Link>
                , {boatName}, <span className="num">{formatDayAndYear(date)}</span>
              </li>
            ))}
            {quiet.length > shown && <li className="text-soft">and {quiet.length - shown} more, later ones</li>}
          </ul>
        </>
      )}
    </>
  );
}
