import type { Delivery } from "../../../api/index.ts";
import type { WalkState } from "../../../core/walk/index.ts";
import { addressOf } from "../../app/client.ts";
import { OwnerLink } from "../../handover/OwnerLink.tsx";
import { linkLook } from "../../ui/Button.tsx";
import { storeRegion } from "../../ui/storeTime.ts";
import { RecordPapers } from "./RecordPapers.tsx";
import { SendRecord } from "./SendRecord.tsx";

/** What the buyer goes home with: the record and the cards on paper, and the address of their page. */
export function BuyerTakes({ delivery, state }: { delivery: Delivery; state: WalkState }) {
  const pack = `${addressOf("packPdf", { delivery: delivery.id })}?paper=${storeRegion().paper}`;
  return (
    <section aria-labelledby="takes" className="mt-5 border-y-2 border-ink py-3">
      <h2 id="takes" className="text-lg font-bold">
        What they take with them
      </h2>
      <div className="mt-2 grid gap-x-10 gap-y-4 lg:grid-cols-2">
        <div>
          <h3 className="head font-semibold text-soft">The record</h3>
          <SendRecord delivery={delivery} />
          <p className="mt-2 flex flex-wrap gap-2">
            <RecordPapers delivery={delivery} />
            <a
              href={addressOf("bundleZip", { delivery: delivery.id })}
              target="_blank"
              rel="noreferrer"
              className={linkLook("plain")}
            >
              As a file, with photos
            </a>
          </p>
          <h3 className="head mt-3 font-semibold text-soft">Owner pack: the cards for the boat</h3>
          <p className="flex flex-wrap gap-2">
            <a href={pack} target="_blank" rel="noreferrer" className={linkLook("primary")}>
              Owner pack, PDF
            </a>
            <a href={`${pack}&layout=two-up`} target="_blank" rel="noreferrer" className={linkLook("plain")}>
              Two a sheet
            </a>
          </p>
        </div>
        <OwnerLink delivery={delivery} state={state} />
      </div>
    </section>
  );
}
