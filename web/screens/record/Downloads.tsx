import { Link } from "react-router";
import type { Delivery } from "../../../api/index.ts";
import { addressOf } from "../../app/client.ts";
import { storeRegion } from "../../ui/storeTime.ts";

/** The record as files: to be shown to anyone, and to be verified. */
export function Downloads({ delivery }: { delivery: Delivery }) {
  const address = (name: "bundle" | "bundleZip" | "marksCsv" | "packPdf") => addressOf(name, { delivery: delivery.id });
  const files: [string, string][] = [
    ...(delivery.seal === null
      ? []
      : ([
          [address("bundle"), "Bundle, JSON"],
          [address("bundleZip"), "Bundle with photos, zip"],
        ] as [string, string][])),
    [address("marksCsv"), "Marks, CSV"],
    ...(delivery.seal !== null
      ? []
      : ([
          [`${address("packPdf")}?paper=${storeRegion().paper}`, "Owner pack, PDF"],
          [`${address("packPdf")}?paper=${storeRegion().paper}&layout=two-up`, "Owner pack, two a sheet"],
        ] as [string, string][])),
  ];
  return (
    <section aria-labelledby="files">
      <h2 id="files" className="text-lg font-bold">
        As files
      </h2>
      <ul className="border-t border-ink">
        {files.map(([to, says]) => (
          <li key={to} className="border-b border-rule">
            <a href={to} target="_blank" rel="noreferrer" className="inline-flex min-h-11 items-center underline">
              {says}
            </a>
          </li>
        ))}
      </ul>
      {delivery.seal !== null && (
        <Link to="/verify" className="inline-flex min-h-11 items-center underline">
          Verify a file
        </Link>
      )}
    </section>
  );
}
