import { useState } from "react";
import type { OwnerPage } from "../../../api/index.ts";
import type { WalkState } from "../../../core/walk/index.ts";
import { addressOf } from "../../app/client.ts";
import { Button } from "../../ui/Button.tsx";
import { FileButton } from "../../ui/FileButton.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { readPlain } from "../../ui/readPlain.ts";
import { useTell } from "../../ui/tell.ts";
import { type Owner, useOwner } from "./useOwner.ts";

interface OwnerArrivalProps {
  readonly token: string;
  readonly page: OwnerPage;
  readonly state: WalkState;
}

/** What to look at before the driver leaves, each in order or damaged, with photos. */
export function OwnerArrival({ token, page, state }: OwnerArrivalProps) {
  const tell = useTell();
  const owner = useOwner(token, page);
  const error = owner.add.error ?? owner.addPhoto.error;
  return (
    <section aria-labelledby="arrival">
      <h2 id="arrival" className="text-2xl font-extrabold">
        {tell("The boat has arrived")}
      </h2>
      <p className="text-soft">
        {tell(
          "Go round before the driver leaves. What you find stands on your record with the time you found it; write it on the driver's papers as well.",
        )}
      </p>
      <ol className="mt-3 border-t border-ink">
        {page.delivery.arrival.map((check, i) => (
          <Check key={check.id} number={i + 1} check={check} token={token} state={state} owner={owner} />
        ))}
      </ol>
      {error !== null && <ErrorNotice error={error} />}
    </section>
  );
}

interface CheckProps {
  readonly number: number;
  readonly check: OwnerPage["delivery"]["arrival"][number];
  readonly token: string;
  readonly state: WalkState;
  readonly owner: Owner;
}

function Check({ number, check, token, state, owner }: CheckProps) {
  const tell = useTell();
  const entry = state.inspected.get(check.id);
  const [isNoting, setNoting] = useState(false);
  const [note, setNote] = useState("");
  const photos = entry === undefined ? [] : state.photos.filter(({ ref }) => ref === entry.id);
  return (
    <li className="border-b border-rule py-3">
      <p className="font-bold">
        <span className="num mr-2 text-soft">{number}</span>
        {tell(check.title)}
      </p>
      <p className="text-soft">{tell(check.why)}</p>
      {entry !== undefined && (
        <p className={entry.ok ? "" : "text-magenta"}>
          {entry.ok
            ? tell("✓ in order")
            : entry.note === undefined
              ? tell("▲ damaged")
              : tell("▲ damaged: {0}", entry.note)}
        </p>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        <Button
          className="min-h-12"
          aria-label={tell("In order: {0}", tell(check.title))}
          aria-pressed={entry?.ok === true}
          onClick={() => owner.add.mutate([{ kind: "inspect", check: check.id, ok: true }])}
        >
          {tell("In order")}
        </Button>
        <Button
          look="person"
          className="min-h-12"
          aria-label={tell("Damaged: {0}", tell(check.title))}
          onClick={() => setNoting(true)}
        >
          {tell("Damaged")}
        </Button>
        {entry !== undefined && (
          <FileButton
            says={tell(owner.addPhoto.isPending ? "Sending …" : "Photo")}
            accept="image/jpeg,image/png,image/webp"
            onFile={(file) => owner.addPhoto.mutate({ file, topic: null, ref: entry.id })}
          />
        )}
      </div>
      {isNoting && (
        <form
          className="mt-2 flex gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            const said = note.trim();
            const entryNote = said === "" ? {} : { note: said };
            owner.add.mutate([{ kind: "inspect", check: check.id, ok: false, ...entryNote }], {
              onSuccess: () => setNoting(false),
            });
          }}
        >
          <input
            aria-label={tell("What is damaged: {0}", tell(check.title))}
            placeholder={tell("What, and where")}
            value={note}
            maxLength={1000}
            onChange={(event) => setNote(readPlain(event))}
            className="min-h-12 min-w-0 flex-1 rounded-md border border-soft bg-panel px-3 placeholder:text-soft"
          />
          <Button type="submit">{tell("Save")}</Button>
        </form>
      )}
      {photos.length > 0 && (
        <ul className="mt-2 flex flex-wrap gap-2">
          {photos.map(({ photo }, i) => (
            <li key={photo}>
              <img
                src={`${addressOf("ownerPhoto", { token, photo })}?size=small`}
                alt={tell("{0}, {1} of {2}", tell(check.title), i + 1, photos.length)}
                className="h-24 rounded-sm border border-rule"
              />
            </li>
          ))}
        </ul>
      )}
    </li>
  );
}
