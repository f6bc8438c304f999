import { useMutation } from "@tanstack/react-query";
import { Camera } from "lucide-react";
import { ulid } from "ulid";
import { addressOf, sendPhoto } from "../app/client.ts";
import { syncQueue } from "../offline/useSync.ts";
import { ErrorNotice } from "./Notice.tsx";

interface PhotoFieldProps {
  readonly label: string;
  /** The id of the photo there is. */
  readonly value: string | undefined;
  readonly onChange: (photo: string | undefined) => void;
}

/** One photo, from the camera or a file; shown small, opened large. */
export function PhotoField({ label, value, onChange }: PhotoFieldProps) {
  const send = useMutation({
    mutationFn: (file: File) => sendPhoto(ulid().toLowerCase(), file),
    onSuccess: ({ photo }) => onChange(photo),
  });
  return (
    <div>
      <span className="flex flex-wrap items-center gap-4">
        {value !== undefined && <PhotoLink photo={value} says={label} />}
        <label className="inline-flex min-h-11 cursor-pointer items-center gap-2 underline focus-within:outline-3">
          <Camera size={18} aria-hidden />
          {send.isPending ? "Sending the photo …" : value === undefined ? label : "Take another"}
          <input
            type="file"
            accept="image/jpeg,image/png,image/webp"
            capture="environment"
            className="sr-only"
            disabled={send.isPending}
            onChange={(event) => {
              const [file] = event.target.files ?? [];
              if (file !== undefined) send.mutate(file);
              event.target.value = "";
            }}
          />
        </label>
        {value !== undefined && (
          <button type="button" className="min-h-11 underline" onClick={() => onChange(undefined)}>
            Without photo
          </button>
        )}
      </span>
      {send.error !== null && <ErrorNotice error={send.error} />}
    </div>
  );
}

/** A photo small, which opens large beside. One that has not been sent yet is seen as it lies on this device. */
export function PhotoLink({ photo, says }: { photo: string; says: string }) {
  const here = syncQueue.findPhoto(photo);
  const address = here ?? addressOf("photo", { photo });
  return (
    <a href={address} target="_blank" rel="noreferrer">
      <img
        src={here ?? `${address}?size=small`}
        alt={says}
        className="h-24 rounded-sm border border-rule"
        loading="lazy"
      />
    </a>
  );
}
