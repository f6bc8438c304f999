import { useMutation } from "@tanstack/react-query";
import type { MessageLine } from "../../api/index.ts";
import { ask } from "../app/client.ts";
import { Button, linkLook } from "../ui/Button.tsx";
import { CopyButton } from "../ui/CopyButton.tsx";
import { ErrorNotice } from "../ui/Notice.tsx";
import { QrCode } from "../ui/QrCode.tsx";

interface ReadyProps {
  readonly boat: string;
  readonly message: Pick<MessageLine, "id">;
  readonly onSent: () => void | Promise<void>;
}

/** A message nobody carries: taken up whole, sent from this device by hand, then marked as sent. Nothing says so before. */
export function ReadyMessage({ boat, message, onSent }: ReadyProps) {
  const params = { boat, message: message.id };
  const prepare = useMutation({ mutationFn: () => ask("prepareMessage", { params }) });
  const sent = useMutation({ mutationFn: () => ask("markSent", { params }), onSuccess: onSent });
  const { data } = prepare;
  if (data === undefined)
    return (
      <>
        <Button className="mt-1" disabled={prepare.isPending} onClick={() => prepare.mutate()}>
          Open it to send
        </Button>
        {prepare.error !== null && <ErrorNotice error={prepare.error} />}
      </>
    );
  const body = encodeURIComponent(data.text);
  return (
    <div className="my-2 border-l-4 border-helm pl-3 text-base">
      <p className="break-words" data-testid="ready-text">
        {data.text}
      </p>
      <p className="mt-2 flex flex-wrap gap-2">
        <CopyButton text={data.text} says="Copy" />
        {data.phone !== "" && (
          <a className={linkLook("plain")} href={`sms:${data.phone.replace(/[^+\d]/g, "")}?body=${body}`}>
            Text message
          </a>
        )}
        {data.email !== "" && (
          <a
            className={linkLook("plain")}
            href={`mailto:${encodeURIComponent(data.email)}?subject=${encodeURIComponent(data.subject)}&body=${body}`}
          >
            E-mail
          </a>
        )}
        <Button look="primary" disabled={sent.isPending} onClick={() => sent.mutate()}>
          Mark as sent
        </Button>
      </p>
      {data.address !== null && <QrCode text={data.address} label="The address of their page as a code to scan" />}
      {sent.error !== null && <ErrorNotice error={sent.error} />}
    </div>
  );
}
