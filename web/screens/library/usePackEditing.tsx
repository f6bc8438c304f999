import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { ulid } from "ulid";
import { breakInPackSchema } from "../../../core/breakin/index.ts";
import { servicePackSchema } from "../../../core/service/index.ts";
import { cutText } from "../../../core/text/index.ts";
import { ask } from "../../app/client.ts";
import { packsQuery, queryClient } from "../../app/queries.ts";
import { Button } from "../../ui/Button.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { readPlain } from "../../ui/readPlain.ts";
import { useCanWrite } from "./useLibrary.ts";

export type PackBody = NonNullable<NonNullable<Parameters<typeof ask<"setPack">>[1]>["body"]>;
type AnyPack = PackBody["pack"];

interface Editing<P extends AnyPack> {
  readonly kind: "breakin" | "service";
  readonly given: P;
  readonly isShipped: boolean;
  readonly isChanged: boolean;
  readonly version: number;
  readonly shelf: Shelf;
}

export interface KeptPack {
  readonly kind: "breakin" | "service";
  readonly pack: AnyPack;
}

/** What the screen around an editor keeps of it: a saved pack is another version, and its editor begins anew. */
export interface Shelf {
  readonly onPicked: (id: string) => void;
  readonly onSaved: (id: string) => void;
  /** The pack as it was before it was taken away. */
  readonly onGone: (kept: KeptPack) => void;
  /** Which was saved last. */
  readonly saved: string | null;
}

/** A pack as it is edited: saved as the store's own, copied, or put back to what ships. */
export function usePackEditing<P extends AnyPack>({ kind, given, isShipped, isChanged, version, shelf }: Editing<P>) {
  const canWrite = useCanWrite();
  const [pack, setPack] = useState(given);
  const refresh = () => queryClient.invalidateQueries({ queryKey: packsQuery.queryKey });
  const save = useMutation({
    mutationFn: (saved: P) => ask("setPack", { params: { pack: saved.id }, body: { kind, pack: saved } as PackBody }),
    onSuccess: async (_, { id }) => {
      shelf.onSaved(id);
      await refresh();
    },
  });
  const remove = useMutation({
    mutationFn: () => ask("removePack", { params: { pack: given.id } }),
    onSuccess: async () => {
      shelf.onGone({ kind, pack: given });
      await refresh();
    },
  });
  const issue = (kind === "breakin" ? breakInPackSchema : servicePackSchema).safeParse(pack).error?.issues[0];
  const isTouched = JSON.stringify(pack) !== JSON.stringify(given);
  const copy = () => {
    const id = `own-${ulid().toLowerCase().slice(-8)}`;
    save.mutate({ ...pack, id, title: cutText(`${pack.title}, our own`, 80) }, { onSuccess: () => shelf.onPicked(id) });
  };
  const error = save.error ?? remove.error;
  const bar = (
    <div className="mt-4">
      {canWrite ? (
        <p className="flex flex-wrap items-center gap-2">
          <Button
            look="primary"
            disabled={!isTouched || issue !== undefined || save.isPending}
            onClick={() => save.mutate(pack)}
          >
            Save it
          </Button>
          <Button disabled={issue !== undefined || save.isPending} onClick={copy}>
            Copy it as our own
          </Button>
          {shelf.saved === given.id && !isTouched && <span role="status">Saved.</span>}
          {isTouched && (
            <Button look="quiet" onClick={() => setPack(given)}>
              Undo the changes
            </Button>
          )}
          {(isChanged || !isShipped) && (
            <Button look="quiet" disabled={remove.isPending} onClick={() => remove.mutate()}>
              {isShipped ? "Back to the original" : "Remove it"}
            </Button>
          )}
        </p>
      ) : (
        <p className="text-soft">Packs are changed by the owner, delivery and service roles.</p>
      )}
      {error !== null && <ErrorNotice error={error} />}
      <p className="mt-2 text-sm text-soft">
        Version {version}. Sealed records keep the packs they were made with; boats follow the pack as it is now.
      </p>
    </div>
  );
  const addButton = (says: string, onAdd: () => void) =>
    canWrite ? (
      <Button className="mt-2" onClick={onAdd}>
        {says}
      </Button>
    ) : null;
  /** Its name, where it can be changed in place. */
  const head = (
    <>
      <h2 className="mt-3 text-lg font-bold break-words">{pack.title}</h2>
      {canWrite && (
        <label className="mt-1 block max-w-xl text-soft">
          Name of the pack
          <input
            value={pack.title}
            maxLength={80}
            aria-invalid={pack.title.trim() === ""}
            onChange={(event) => setPack({ ...pack, title: readPlain(event) })}
            className="mt-0.5 block min-h-11 w-full rounded-md border border-soft bg-panel px-3 text-ink"
          />
        </label>
      )}
    </>
  );
  return { pack, setPack, issue, canWrite, addButton, head, bar };
}
