import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import type { BundlePreview } from "../../../api/index.ts";
import { sendFile } from "../../app/client.ts";
import { queryClient } from "../../app/queries.ts";
import { Button } from "../../ui/Button.tsx";
import { FileButton } from "../../ui/FileButton.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { formatDayAndYear } from "../../ui/words.ts";

const typeOf = (file: File) => (file.name.toLowerCase().endsWith(".json") ? "application/json" : "application/zip");

/** Taking in a handover that another store sealed: what is in it first, then all of it or nothing. */
export function BundleScreen() {
  const [file, setFile] = useState<File | null>(null);
  const navigate = useNavigate();
  const preview = useMutation({ mutationFn: (chosen: File) => sendFile("previewBundle", {}, chosen, typeOf(chosen)) });
  const importFile = useMutation({
    mutationFn: ({ chosen, trust }: { chosen: File; trust: string | null }) =>
      sendFile("importBundle", {}, chosen, typeOf(chosen), trust === null ? {} : { query: { trust } }),
    onSuccess: async ({ delivery }) => {
      await queryClient.invalidateQueries();
      await navigate(`/deliveries/${delivery}/record`);
    },
  });
  return (
    <main className="max-w-4xl px-4 pt-5 pb-10 md:px-8">
      <h1 className="text-2xl font-bold">Import a handover</h1>
      <p className="mt-1">
        A boat that another store handed over comes with its bundle: the sealed record with its photos (zip), or the
        record alone (JSON). You see what is in it before anything is kept.
      </p>
      <div className="mt-4 flex items-center gap-4">
        <FileButton
          says="Choose the bundle"
          accept=".zip,.json,application/zip,application/json"
          onFile={(chosen) => {
            setFile(chosen);
            importFile.reset();
            preview.mutate(chosen);
          }}
        />
        <span className="text-soft">{file?.name}</span>
      </div>
      {preview.isPending && <p role="status">Reading it …</p>}
      {preview.error !== null && <ErrorNotice error={preview.error} />}
      {preview.data !== undefined && file !== null && (
        <Preview
          data={preview.data}
          isBusy={importFile.isPending}
          onImport={(trust) => importFile.mutate({ chosen: file, trust })}
        />
      )}
      {importFile.error !== null && <ErrorNotice error={importFile.error} />}
    </main>
  );
}

interface PreviewProps {
  readonly data: BundlePreview;
  readonly isBusy: boolean;
  readonly onImport: (trust: string | null) => void;
}

function Preview({ data, isBusy, onImport }: PreviewProps) {
  const { verified, isKnown, isBoatKnown } = data;
  const { origin } = verified;
  const [isTrusted, setTrusted] = useState(false);
  const isAsked = origin?.is === "unknown";
  const facts: [string, string][] = [
    ["Boat", `${data.boatName}, ${data.hull}`],
    ["Handed over", `${formatDayAndYear(data.date)} by ${data.store}`],
    ["To", data.buyers.join(" and ")],
    ["Holds", `${data.topics} topics, ${data.entries} entries, ${data.photos} photos, ${data.amendments} additions`],
    [
      "Becomes",
      isBoatKnown ? "a handover of a boat this store has; the boat stays as it is" : "a new boat with its handover",
    ],
  ];
  return (
    <section aria-label="What is in it" className="mt-6">
      <dl className="grid grid-cols-[8rem_1fr] border-t border-ink">
        {facts.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="border-b border-rule py-1.5 text-soft">{name}</dt>
            <dd className="border-b border-rule py-1.5 break-words">{value}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-3">{verified.isIntact ? "Intact: it is what was sealed." : "It is not what was sealed:"}</p>
      <ul>
        {verified.differences.map(({ says }) => (
          <li key={says} className="text-magenta">
            ▲ {says}
          </li>
        ))}
      </ul>
      {data.photosLeft > 0 && (
        <p className="mt-2 text-amber">
          ◷ The record names {data.photosLeft} {data.photosLeft === 1 ? "photo that is" : "photos that are"} not in this
          file, and none can be added later. Ask them for the zip.
        </p>
      )}
      {isKnown && <p className="mt-2 text-amber">◷ This very handover is in the store already.</p>}
      {origin === null ? (
        <p className="mt-2 text-amber">
          ◷ It bears nobody's signature. Taken in, its record says so. A file that names a store's key and bears no
          signature of that store is not taken.
        </p>
      ) : (
        <p className="mt-2">
          Signed by <strong>{origin.store}</strong>
          {origin.is === "this-store" && ", this store"}
          {origin.is === "known" &&
            `, a store known here${origin.since === null ? "" : ` since ${formatDayAndYear(origin.since)}`}`}
          .
        </p>
      )}
      {isAsked && (
        <label className="mt-2 flex min-h-11 items-start gap-3 border-l-4 border-amber bg-caution px-3 py-2 text-oncaution">
          <input
            type="checkbox"
            className="mt-1 size-6 accent-helm"
            checked={isTrusted}
            onChange={(event) => setTrusted(event.target.checked)}
          />
          <span>
            This store is not known here. I have compared its key with the one on their paper:{" "}
            <code className="num text-sm break-all">{origin.key}</code>
          </span>
        </label>
      )}
      <Button
        look="primary"
        className="mt-4"
        disabled={isBusy || isKnown || !verified.isIntact || (isAsked && !isTrusted)}
        onClick={() => onImport(isAsked ? origin.key : null)}
      >
        {isBusy ? "Importing …" : "Import"}
      </Button>
    </section>
  );
}
