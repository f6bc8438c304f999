import { useMutation } from "@tanstack/react-query";
import { Paperclip } from "lucide-react";
import { ulid } from "ulid";
import { addressOf, Refused, sendFile } from "../app/client.ts";
import { FileButton } from "./FileButton.tsx";
import { ErrorNotice } from "./Notice.tsx";

/** The server's limit (server/files.ts), said before anything is sent. */
const mostBytes = 10_000_000;
const mostName = 120;
const kinds = ["application/pdf", "text/plain"];

export interface Attached {
  readonly file: string;
  readonly fileName: string;
}

interface AttachFileProps {
  readonly says: string;
  readonly value: Attached | null;
  readonly onChange: (file: Attached | null) => void;
}

/** One file that shows something, a PDF or plain text: sent as it is, told by its name, taken off again. */
export function AttachFile({ says, value, onChange }: AttachFileProps) {
  const send = useMutation({
    mutationFn: async (file: File): Promise<Attached> => {
      if (file.size > mostBytes) throw new Refused({ code: "too-large", limit: "10 MB" });
      if (file.type !== "" && !kinds.includes(file.type)) throw new Refused({ code: "not-a-document" });
      const kept = await sendFile("setFile", { file: ulid().toLowerCase() }, file, "application/pdf");
      return { file: kept.file, fileName: file.name.slice(-mostName) };
    },
    onSuccess: onChange,
  });
  return (
    <span className="inline-block">
      <span className="flex flex-wrap items-center gap-3">
        <FileButton
          says={
            <>
              <Paperclip size={18} aria-hidden />
              {send.isPending ? "Sending the file …" : value === null ? says : "Another file"}
            </>
          }
          accept=".pdf,.txt,application/pdf,text/plain"
          isBusy={send.isPending}
          onFile={(file) => send.mutate(file)}
        />
        {value !== null && (
          <>
            <FileLink {...value} />
            <button type="button" className="min-h-11 underline" onClick={() => onChange(null)}>
              Without file
            </button>
          </>
        )}
      </span>
      {send.error !== null && <ErrorNotice error={send.error} />}
    </span>
  );
}

/** A file by its name; it is saved, not opened here. */
export function FileLink({ file, fileName }: Attached) {
  return (
    <a
      className="inline-flex min-h-11 items-center gap-1 underline [overflow-wrap:anywhere]"
      href={addressOf("file", { file })}
      download={fileName}
    >
      <Paperclip size={16} aria-hidden />
      {fileName}
    </a>
  );
}
