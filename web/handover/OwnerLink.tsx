import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import type { Delivery } from "../../api/index.ts";
import { isOneOf, walkers } from "../../api/roles.ts";
import { formatBuyers, type WalkState } from "../../core/walk/index.ts";
import { ask, askPaper } from "../app/client.ts";
import { deliveryQuery, queryClient } from "../app/queries.ts";
import { useMe } from "../app/useMe.ts";
import { Button } from "../ui/Button.tsx";
import { CopyButton } from "../ui/CopyButton.tsx";
import { ErrorNotice } from "../ui/Notice.tsx";
import { QrCode } from "../ui/QrCode.tsx";
import { saveBlob } from "../ui/saveFile.ts";
import { storeDay, storeRegion } from "../ui/storeTime.ts";
import { formatDay } from "../ui/words.ts";

/** The owner's private page: made, sent with or without the walk on it, replaced, ended. The address is shown once. */
export function OwnerLink({ delivery, state }: { delivery: Delivery; state: WalkState }) {
  const me = useMe();
  const [address, setAddress] = useState<string | null>(null);
  const [isSent, setSent] = useState(true);
  const [wasSent, setWasSent] = useState(false);
  const buyers = formatBuyers(delivery.buyers);
  const fetchAnew = () => queryClient.invalidateQueries({ queryKey: deliveryQuery(delivery.id).queryKey });
  const params = { delivery: delivery.id };
  const make = useMutation({
    mutationFn: (isRemote: boolean) =>
      ask("setOwnerLink", { params, body: { isRemote, send: isSent && me.isCarried } }),
    onSuccess: (made) => {
      setAddress(made.address);
      setWasSent(isSent && me.isCarried);
      return fetchAnew();
    },
  });
  const [isEnding, setEnding] = useState(false);
  const end = useMutation({
    mutationFn: () => ask("endOwnerLink", { params }),
    onSuccess: () => {
      setAddress(null);
      setEnding(false);
      return fetchAnew();
    },
  });
  const print = useMutation({
    mutationFn: async (whole: string) => {
      const body = { paper: storeRegion().paper, layout: "single" as const, token: whole.split("/").at(-1)! };
      saveBlob("owner-pack.pdf", await askPaper("labelledPack", params, body));
    },
  });
  if (!isOneOf(walkers, me.role)) return null;
  const { link } = delivery;
  const said = state.remote.size;
  const error = make.error ?? end.error;
  return (
    <section aria-labelledby="owner-link">
      <h2 id="owner-link" className="text-lg font-bold">
        Owner's page
      </h2>
      <div className="border-t border-ink pt-2">
        <p className="text-soft">
          {link === null
            ? "A private address for the buyer: their cards, their record, what is promised, a question to you. Made for absent buyers, it has the walk on it too."
            : `Made ${formatDay(storeDay(link.madeAt))}${link.isRemote ? ", with the walk on it" : ""}.`}
          {said > 0 && ` ${said} topics gone through there.`}
        </p>
        {address !== null && (
          <p className="mt-2 border-l-4 border-helm pl-3">
            {wasSent && <strong className="block">Sent to {buyers}.</strong>}
            <span className="text-soft">Copy it now: it cannot be shown again.</span>
            <br />
            {/* No link: opened here, it would stand in the history of a tablet that is not the buyer's. */}
            <span className="break-all select-all" data-testid="owner-address">
              {address}
            </span>
            <span className="mt-2 flex flex-wrap gap-2">
              <CopyButton text={address} says="Copy the address" />
              <Button disabled={print.isPending} onClick={() => print.mutate(address)}>
                Owner pack with the code for the helm
              </Button>
            </span>
            {print.error !== null && <ErrorNotice error={print.error} />}
            <span className="mt-2 block">
              <QrCode text={address} label="The address as a code to scan" />
              <span className="text-soft">Scanned with their phone, it opens their page.</span>
            </span>
          </p>
        )}
        {me.isCarried && (
          <label className="flex min-h-11 items-center gap-3">
            <input
              type="checkbox"
              className="size-6 accent-helm"
              checked={isSent}
              onChange={(event) => setSent(event.target.checked)}
            />
            Send the address to {buyers}
          </label>
        )}
        <div className="flex flex-wrap gap-2">
          <Button disabled={make.isPending} onClick={() => make.mutate(false)}>
            {link === null ? "Make their page" : "A new address"}
          </Button>
          {delivery.seal === null && (
            <Button disabled={make.isPending} onClick={() => make.mutate(true)}>
              {link === null ? "Make it with the walk" : "A new one with the walk"}
            </Button>
          )}
          {link !== null && (
            <Button look="quiet" disabled={end.isPending} aria-expanded={isEnding} onClick={() => setEnding(!isEnding)}>
              End it
            </Button>
          )}
        </div>
        {link !== null && isEnding && (
          <p className="mt-2 flex flex-wrap items-center gap-2 border-l-4 border-magenta pl-3">
            <span className="basis-full">
              The address they have opens nothing any more. It cannot be opened again; a new one has to be sent to them.
            </span>
            <Button look="person" disabled={end.isPending} onClick={() => end.mutate()}>
              End it for {buyers}
            </Button>
            <Button onClick={() => setEnding(false)}>Keep it</Button>
          </p>
        )}
        {error !== null && <ErrorNotice error={error} />}
      </div>
    </section>
  );
}
