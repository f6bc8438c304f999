import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { VerifiedSheet } from "../../../api/index.ts";
import { struckFirstWords } from "../../../core/walk/index.ts";
import { ask } from "../../app/client.ts";
import { FileButton } from "../../ui/FileButton.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { storeDay } from "../../ui/storeTime.ts";
import { count, formatDayAndYear } from "../../ui/words.ts";
import { useWorker } from "../../workers/useWorker.ts";
import type { VerifyWorker } from "../../workers/verify.ts";
import { type FileVerdict, verifyFile } from "./verifyFile.ts";

const createVerifyWorker = () => new Worker(new URL("../../workers/verify.ts", import.meta.url), { type: "module" });

/** Is this handover file still what was sealed? Anybody may ask; the answer is worked out in the browser. */
export function VerifyScreen() {
  const [name, setName] = useState("");
  const getWorker = useWorker<VerifyWorker>(createVerifyWorker);
  const verify = useMutation({
    mutationFn: async (file: File): Promise<FileVerdict> => {
      if (!("Worker" in globalThis)) return verifyFile(new Uint8Array(await file.arrayBuffer()));
      return getWorker().verify(file);
    },
    // What this store knows of it is more than the file alone can say; whoever is not signed in does without.
    onSuccess: (verdict) => ("verified" in verdict ? compare.mutate(verdict.value) : compare.reset()),
  });
  const compare = useMutation({ mutationFn: (body: unknown) => ask("verify", { body }) });
  const { data } = verify;
  return (
    <main className="max-w-4xl px-4 pt-5 pb-10 md:px-8">
      <p className="mb-3">
        <Link className="head inline-flex min-h-11 items-center font-bold" to="/">
          Ravik
        </Link>
      </p>
      <h1 className="text-2xl font-bold">Verify a handover file</h1>
      <p className="mt-1">
        A signed handover carries a hash of everything in it, and each addition the hash of what it follows. Choose the
        file (JSON, or zip with its photos): it is compared with its own seal, here in your browser. It is not sent
        anywhere unless you are signed in to this store.
      </p>
      <div className="mt-4 flex flex-wrap items-center gap-4">
        <FileButton
          says="Choose the file"
          accept=".json,.zip,application/json,application/zip"
          onFile={(file) => {
            setName(file.name);
            compare.reset();
            verify.mutate(file);
          }}
        />
        <span className="break-all text-soft">{name}</span>
      </div>
      {verify.isPending && <p role="status">Comparing …</p>}
      {verify.error !== null && <ErrorNotice error={verify.error} />}
      {data !== undefined &&
        ("fault" in data ? (
          <p role="alert" className="mt-4 border-l-4 border-magenta pl-3 text-magenta">
            ▲ {data.fault}
          </p>
        ) : (
          <Answer verified={data.verified} sheet={compare.data ?? null} />
        ))}
      <p className="mt-8 text-soft">
        In a terminal, without any store: <code>npm run verify -- handover.json</code>. The whole store:{" "}
        <code>npm run verify -- --store DATA</code>.{" "}
        <Link className="underline" to="/bundles">
          Import a handover
        </Link>
      </p>
    </main>
  );
}

type VerifiedFile = Extract<FileVerdict, { verified: unknown }>["verified"];

/** Whose key it is, as far as this store knows. */
function sayOrigin({ is, since }: NonNullable<VerifiedSheet["origin"]>): string {
  switch (is) {
    case "this-store":
      return "this store";
    case "known":
      return since === null ? "a store known here" : `a store whose key is known here since ${formatDayAndYear(since)}`;
    case "unknown":
      return "a store not known here: compare its key with the one on their paper";
    default:
      throw new Error(`sayOrigin: expected a known origin, got ${JSON.stringify(is satisfies never)}`);
  }
}

function Answer({ verified, sheet }: { verified: VerifiedFile; sheet: VerifiedSheet | null }) {
  const { sha256, entries, amendments, signedBy } = verified;
  // The store's own copy may know of a difference that the file alone cannot show.
  const isIntact = verified.isIntact && (sheet?.isIntact ?? true);
  const says = verified.isIntact ? (sheet?.differences ?? []).map((each) => each.says) : verified.says;
  return (
    <section aria-label="Answer" role="status" className="mt-6 border-t border-ink pt-4">
      {isIntact && verified.cannotRecompute ? (
        <>
          <p className="text-xl font-bold">Names were struck from it; nothing else differs.</p>
          <p className="max-w-prose border-l-4 border-amber pl-3">◷ {struckFirstWords}</p>
        </>
      ) : isIntact && verified.verdict === "signed" ? (
        <p className="text-xl font-bold">Intact, and signed by the store that sealed it.</p>
      ) : isIntact ? (
        <>
          <p className="text-xl font-bold">Intact, but nobody's signature says whose it is.</p>
          <p className="max-w-prose border-l-4 border-amber pl-3">
            ◷ It fits its own seal. Whoever can write such a file can also make one anew: ask the store that is named in
            it for a file that bears its signature.
          </p>
        </>
      ) : (
        <p className="text-xl font-bold text-magenta">▲ This is not what was sealed.</p>
      )}
      <ul className="mt-2">
        {says.map((each) => (
          <li key={each} className="border-b border-rule py-1.5 break-words text-magenta">
            ▲ {each}
          </li>
        ))}
      </ul>
      <dl className="mt-4 grid gap-x-4 gap-y-1 md:grid-cols-[12rem_1fr]">
        <dt className="text-soft">Entries</dt>
        <dd className="num">
          {entries}, and {count(amendments, "addition", "additions")}
        </dd>
        <dt className="text-soft">SHA-256 of what is here</dt>
        <dd className="num text-sm break-all">{sha256 ?? "cannot be worked out"}</dd>
        <dt className="text-soft">Signed by</dt>
        <dd className="break-words">
          {signedBy === null ? (
            "nobody"
          ) : (
            <>
              {signedBy.store}
              {sheet?.origin != null && `, ${sayOrigin(sheet.origin)}`}
              <br />
              <code className="num text-sm break-all">{signedBy.key}</code>
            </>
          )}
        </dd>
        {sheet !== null && (
          <>
            <dt className="text-soft">In this store</dt>
            <dd>
              {sheet.known === null ? (
                "This store has not sealed it: it was compared with its own seal only."
              ) : (
                <>
                  Number {sheet.known.number} of the seal chain, sealed{" "}
                  {formatDayAndYear(storeDay(sheet.known.sealedAt))}.{" "}
                  <Link className="underline" to={`/deliveries/${sheet.known.delivery}/record`}>
                    Open the record
                  </Link>
                </>
              )}
            </dd>
          </>
        )}
      </dl>
    </section>
  );
}
