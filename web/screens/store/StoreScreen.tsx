import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { StoreFacts } from "../../../api/index.ts";
import { addressOf, ask } from "../../app/client.ts";
import { meQuery, queryClient, storeQuery } from "../../app/queries.ts";
import { Button, linkLook } from "../../ui/Button.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { PhotoField } from "../../ui/PhotoField.tsx";
import { Backups } from "./Backups.tsx";
import { Restored } from "./Restored.tsx";
import { Retention } from "./Retention.tsx";
import { RegionFields, RuleFields, StoreFields } from "./StoreFields.tsx";

/** What is set where it is used. */
const elsewhere = [
  { what: "Opening days, holidays and what the workshop can take in", says: "Workshop", to: "/aftercare/workshop" },
  { what: "The words of messages", says: "This week", to: "/aftercare" },
  { what: "Methods taught", says: "Library, Methods", to: "/library/schools" },
  { what: "Prices and packs", says: "Library, Packs", to: "/library/packs" },
] as const;

/** What the store says of itself, and how it measures and writes. */
export function StoreScreen() {
  const query = useQuery(storeQuery);
  return (
    <Fetched query={query} what="the store">
      {(facts) => <StoreForm before={facts} />}
    </Fetched>
  );
}

function StoreForm({ before }: { before: StoreFacts }) {
  const [facts, setFacts] = useState(before);
  const isChanged = JSON.stringify(facts) !== JSON.stringify(before);
  const save = useMutation({
    mutationFn: () => ask("setStoreFacts", { body: facts }),
    onSuccess: async () => {
      queryClient.setQueryData(storeQuery.queryKey, facts);
      await queryClient.invalidateQueries({ queryKey: meQuery.queryKey });
    },
  });
  return (
    <main className="max-w-4xl px-4 pt-6 pb-10 md:px-8">
      <h1 className="mb-4 text-2xl font-bold">Store</h1>
      <Restored />
      <StoreFields facts={facts} onChange={setFacts} />
      <section aria-labelledby="logo" className="mt-6">
        <h3 id="logo" className="font-semibold">
          Logo
        </h3>
        <p className="mb-1 text-soft">It stands on records, histories, owners' labels and owners' pages, on white.</p>
        <PhotoField
          label="Pick a picture of it"
          value={facts.logo ?? undefined}
          onChange={(logo) => setFacts({ ...facts, logo: logo ?? null })}
        />
      </section>
      <h2 className="mt-8 mb-3 border-t border-rule pt-4 text-lg font-bold">How you measure and write</h2>
      <RegionFields region={facts.region} onChange={(region) => setFacts({ ...facts, region })} />
      <h2 className="mt-8 mb-3 border-t border-rule pt-4 text-lg font-bold">Rules</h2>
      <RuleFields facts={facts} onChange={setFacts} />
      <ul aria-label="Set elsewhere" className="mt-6 text-soft">
        {elsewhere.map(({ to, says, what }) => (
          <li key={to}>
            {what}:{" "}
            <Link to={to} className="inline-flex min-h-11 items-center underline">
              {says}
            </Link>
          </li>
        ))}
      </ul>
      <div className="mt-8 flex flex-wrap items-center gap-4 border-t border-ink pt-4">
        <Button look="primary" disabled={!isChanged || save.isPending} onClick={() => save.mutate()}>
          Save
        </Button>
        {isChanged && <Button onClick={() => setFacts(before)}>Take it back</Button>}
        {save.isSuccess && !isChanged && <p role="status">Saved.</p>}
      </div>
      {save.error !== null && (
        <div className="mt-4">
          <ErrorNotice error={save.error} />
        </div>
      )}
      <Backups />
      <Retention />
      <section aria-labelledby="everything" className="mt-8 border-t border-rule pt-4">
        <h2 id="everything" className="text-lg font-bold">
          Everything as a file
        </h2>
        <p className="mb-2 max-w-prose text-soft">
          Boats, buyers, handovers with their seals, hours, services, packs, library, messages and photos, one line of
          JSON for each. Passwords are not in it. It is large, and names your buyers: keep it where only you can read
          it. It is read back with <code>ravik import</code>.
        </p>
        <a className={linkLook("plain")} href={addressOf("everything", {})} download>
          Download everything
        </a>
      </section>
    </main>
  );
}
