import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { VerifiedSheet } from "../../../api/index.ts";
import { ask } from "../../app/client.ts";
import { FileButton } from "../../ui/FileButton.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { formatDayAndYear } from "../../ui/words.ts";

/** Is this handover file still what was sealed? Says intact, or exactly what differs. */
export function VerifyScreen() {
  const [name, setName] = useState("");
  const [broken, setBroken] = useState<string | null>(null);
  const verify = useMutation({ mutationFn: (body: unknown) => ask("verify", { body }) });
  const read = async (file: File) => {
    setName(file.name);
    setBroken(null);
    verify.reset();
    try {
      verify.mutate(JSON.parse(await file.text()));
    } catch {
      setBroken("It is not JSON. A handover file is taken from its record, under Bundle.");
    }
  };
  return (
    <main className="max-w-4xl px-4 pt-5 pb-10 md:px-8">
      <h1 className="text-2xl font-bold">Verify a handover file</h1>
      <p className="mt-1">
        A sealed handover carries the hash of everything in it, and each addition the hash of what it follows. Choose
        the file that somebody shows you: it is compared with its own seal, and with what this store sealed, where it
        did.
      </p>
      <div className="mt-4 flex items-center gap-4">
        <FileButton says="Choose the file" accept=".json,application/json" onFile={(file) => void read(file)} />
        <span className="text-soft">{name}</span>
      </div>
      {broken !== null && (
        <p role="alert" className="mt-4 border-l-4 border-magenta pl-3 text-magenta">
          ▲ {broken}
        </p>
      )}
      {verify.isPending && <p role="status">Comparing …</p>}
      {verify.error !== null && <ErrorNotice error={verify.error} />}
      {verify.data !== undefined && <Answer sheet={verify.data} />}
      <p className="mt-8 text-soft">
        In a terminal, without this store: <code>npm run verify -- handover.json</code>. Or take a handover of another
        store in:{" "}
        <Link className="underline" to="/bundles">
          Take in a handover
        </Link>
        .
      </p>
    </main>
  );
}

function Answer({ sheet }: { sheet: VerifiedSheet }) {
  const { isIntact, differences, sha256, entries, amendments, known } = sheet;
  return (
    <section aria-label="Answer" role="status" className="mt-6 border-t border-ink pt-4">
      {isIntact ? (
        <p className="text-xl font-bold">Intact.</p>
      ) : (
        <p className="text-xl font-bold text-magenta">▲ Not what was sealed.</p>
      )}
      <ul className="mt-2">
        {differences.map(({ says }) => (
          <li key={says} className="border-b border-rule py-1.5 text-magenta">
            ▲ {says}
          </li>
        ))}
      </ul>
      <dl className="mt-4 grid grid-cols-[10rem_1fr] gap-y-1">
        <dt className="text-soft">Entries</dt>
        <dd className="num">
          {entries}, and {amendments} {amendments === 1 ? "addition" : "additions"}
        </dd>
        <dt className="text-soft">SHA-256 of what is here</dt>
        <dd className="num text-sm break-all">{sha256 ?? "not to be worked out"}</dd>
        <dt className="text-soft">In this store</dt>
        <dd>
          {known === null ? (
            "This store has not sealed it: it was compared with its own seal only."
          ) : (
            <>
              Number {known.number} of the seal chain, sealed {formatDayAndYear(known.sealedAt.slice(0, 10))}.{" "}
              <Link className="underline" to={`/deliveries/${known.delivery}/record`}>
                Open the record
              </Link>
            </>
          )}
        </dd>
      </dl>
    </section>
  );
}
