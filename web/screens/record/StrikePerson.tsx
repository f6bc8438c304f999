import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import type { Delivery } from "../../../api/index.ts";
import { isOneOf, owners } from "../../../api/roles.ts";
import { struckName } from "../../../core/walk/index.ts";
import { ask } from "../../app/client.ts";
import { deliveryQuery, queryClient } from "../../app/queries.ts";
import { useMe } from "../../app/useMe.ts";
import { Button } from "../../ui/Button.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { readPlain } from "../../ui/readPlain.ts";

/** A buyer's name and signatures, and all photos if wished, taken out of a sealed record for good; the rest still verifies. */
export function StrikePerson({ delivery }: { delivery: Delivery }) {
  const me = useMe();
  const buyers = delivery.buyers.filter(({ name }) => name !== struckName);
  const [chosen, setChosen] = useState<string | null>(null);
  const [withPhotos, setWithPhotos] = useState(false);
  const [reason, setReason] = useState("");
  const [isSure, setSure] = useState(false);
  const { id: person, name } = buyers.find(({ id }) => id === chosen) ?? buyers[0] ?? { id: "", name: "" };
  const strike = useMutation({
    mutationFn: () => {
      const photos = delivery.entries.flatMap((entry) => (entry.kind === "photo" ? [entry.photo] : []));
      const body = { person, photos: withPhotos ? [...new Set(photos)] : [], reason: reason.trim() };
      return ask("strike", { params: { delivery: delivery.id }, body });
    },
    onSuccess: () => {
      setSure(false);
      setReason("");
      return queryClient.invalidateQueries({ queryKey: deliveryQuery(delivery.id).queryKey });
    },
  });
  // A record of the first format has no key: its seal is over the names themselves.
  if (!isOneOf(owners, me.role) || delivery.seal === null || delivery.seal.key === null || buyers.length === 0)
    return null;
  return (
    <details>
      <summary className="head flex min-h-11 items-center font-semibold">Strike personal data</summary>
      <form
        className="space-y-2 border-t border-ink pt-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (reason.trim() === "") return;
          if (isSure) strike.mutate();
          else setSure(true);
        }}
      >
        <p className="text-soft">
          For a buyer who asks for it. Name and signatures are gone for good; that they were there, who struck them and
          why stays, and the rest of the record still verifies.
        </p>
        <label className="block">
          Whose
          <select
            value={person}
            onChange={(event) => {
              setChosen(event.target.value);
              setSure(false);
            }}
            className="mt-1 block min-h-11 w-full rounded-md border border-soft bg-panel px-2"
          >
            {buyers.map((buyer) => (
              <option key={buyer.id} value={buyer.id}>
                {buyer.name}
              </option>
            ))}
          </select>
        </label>
        <label className="flex min-h-11 items-center gap-3">
          <input
            type="checkbox"
            className="size-6 accent-helm"
            checked={withPhotos}
            onChange={(event) => {
              setWithPhotos(event.target.checked);
              setSure(false);
            }}
          />
          All photos too
        </label>
        <label className="block">
          Why
          <input
            value={reason}
            maxLength={500}
            onChange={(event) => setReason(readPlain(event))}
            className="mt-1 block min-h-11 w-full rounded-md border border-soft bg-panel px-3"
          />
        </label>
        {isSure && (
          <p role="alert" className="border-l-4 border-magenta pl-3 text-magenta">
            ▲ {withPhotos ? `${name} and all photos are` : `${name} is`} struck from this record for good. It cannot be
            undone.
          </p>
        )}
        <Button type="submit" look={isSure ? "person" : "plain"} disabled={reason.trim() === "" || strike.isPending}>
          {isSure ? `Strike ${name} for good` : "Strike"}
        </Button>
        {strike.error !== null && <ErrorNotice error={strike.error} />}
      </form>
    </details>
  );
}
