import { useMutation, useQuery } from "@tanstack/react-query";
import type { Delivery } from "../../../api/index.ts";
import { isOneOf, walkers } from "../../../api/roles.ts";
import { ask, Refused } from "../../app/client.ts";
import { boatQuery, queryClient } from "../../app/queries.ts";
import { useMe } from "../../app/useMe.ts";
import { ContactFields } from "../../care/ContactFields.tsx";
import { sayWhatBecame } from "../../care/messageWords.ts";
import { ReadyMessage } from "../../care/ReadyMessage.tsx";
import { Button } from "../../ui/Button.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { useFormId } from "../../ui/useIds.ts";

/** Their record as a message with the address of their page: carried by what the store has, or sent from this device by hand. */
export function SendRecord({ delivery }: { delivery: Delivery }) {
  const me = useMe();
  const [id, renewId] = useFormId();
  const send = useMutation({
    mutationFn: () => ask("sendRecord", { params: { delivery: delivery.id }, body: { id } }),
    onSuccess: renewId,
  });
  if (!isOneOf(walkers, me.role)) return null;
  const { data: message } = send;
  return (
    <div className="mt-2">
      {message === undefined && (
        <Button look="primary" disabled={send.isPending} onClick={() => send.mutate()}>
          Send them their record
        </Button>
      )}
      {message !== undefined && (
        <div className="border-l-4 border-helm pl-3">
          <p role="status" className="break-words">
            {sayWhatBecame(message, me.isHeld)}
          </p>
          {message.state === "ready" && <ReadyMessage boat={delivery.boat} message={message} onSent={send.reset} />}
        </div>
      )}
      {send.error !== null && (
        <ErrorNotice error={send.error}>
          {send.error instanceof Refused && send.error.code === "no-contact" && (
            <MissingContact boat={delivery.boat} onSaved={send.reset} />
          )}
        </ErrorNotice>
      )}
    </div>
  );
}

function MissingContact({ boat, onSaved }: { boat: string; onSaved: () => void }) {
  const { data } = useQuery(boatQuery(boat));
  const save = useMutation({
    mutationFn: (contact: Parameters<Parameters<typeof ContactFields>[0]["onSave"]>[0]) =>
      ask("setContact", { params: { boat }, body: contact }),
    onSuccess: async () => {
      await queryClient.invalidateQueries({ queryKey: boatQuery(boat).queryKey });
      onSaved();
    },
  });
  if (data === undefined) return null;
  return (
    <>
      <ContactFields contact={data.contact} onSave={(contact) => save.mutate(contact)} />
      {save.error !== null && <ErrorNotice error={save.error} />}
    </>
  );
}
