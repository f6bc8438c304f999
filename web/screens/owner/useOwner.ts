import { useMutation } from "@tanstack/react-query";
import { ulid } from "ulid";
import type { OwnerPage } from "../../../api/index.ts";
import { toInstant } from "../../../core/dates/index.ts";
import { hashBytes } from "../../../core/hash/index.ts";
import { createPhotoId, type Entry, ownerId } from "../../../core/walk/index.ts";
import { ask, sendFile } from "../../app/client.ts";
import { ownerPageQuery, queryClient } from "../../app/queries.ts";
import type { NewEntry } from "../../offline/syncQueue.ts";

/** What an owner may do on their page: enter what is theirs, and send a photo. Without signal it says so and keeps the words. */
export function useOwner(token: string, { delivery }: OwnerPage) {
  const fetchAnew = () => queryClient.invalidateQueries({ queryKey: ownerPageQuery(token).queryKey });
  const add = useMutation({
    mutationFn: (entries: readonly NewEntry[]) => {
      const nowMs = Date.now();
      const whole = entries.map(
        (entry) =>
          ({
            ...entry,
            id: ulid(nowMs),
            delivery: delivery.id,
            at: toInstant(nowMs),
            by: ownerId,
            device: "owner-page",
          }) as Entry,
      );
      return ask("addOwnerEntries", { params: { token }, body: { entries: whole, deviceMs: nowMs } });
    },
    onSuccess: fetchAnew,
  });
  const addPhoto = useMutation({
    mutationFn: async ({ file, topic, ref }: { file: File; topic: string | null; ref: string | null }) => {
      const sha256 = hashBytes(new Uint8Array(await file.arrayBuffer()));
      const photo = createPhotoId(sha256, "owner");
      await sendFile("setOwnerPhoto", { token, photo }, file, "image/jpeg");
      await add.mutateAsync([{ kind: "photo", photo, sha256, topic, ref }]);
    },
  });
  return { add, addPhoto };
}

export type Owner = ReturnType<typeof useOwner>;
