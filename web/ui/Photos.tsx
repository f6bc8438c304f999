import { Camera } from "lucide-react";
import { useState } from "react";
import { Refused } from "../app/client.ts";
import { syncQueue } from "../offline/useSync.ts";
import { ErrorNotice } from "./Notice.tsx";
import { PhotoLink } from "./PhotoField.tsx";

/** The server's limits (server/photos.ts), said where the photo is taken. */
const mostBytes = 20_000_000;
const mostPx = 12_000;
const kinds = ["image/jpeg", "image/png", "image/webp"];

interface TakePhotoProps {
  readonly says: string;
  /** The photo is kept on this device; its id is for the entry that names it. */
  readonly onTaken: (photo: string) => void;
  readonly isLarge?: boolean;
}

/** Takes a photo with the camera or from a file and keeps it here, with or without signal. */
export function TakePhoto({ says, onTaken, isLarge = false }: TakePhotoProps) {
  const [refusal, setRefusal] = useState<Refused | null>(null);
  const keep = async (file: File) => {
    if (file.size > mostBytes) return setRefusal(new Refused({ code: "too-large", limit: "20 MB" }));
    if (file.type !== "" && !kinds.includes(file.type)) return setRefusal(new Refused({ code: "not-a-photo" }));
    const found = await measurePicture(file);
    if (found === null) return setRefusal(new Refused({ code: "not-a-photo" }));
    if (found > mostPx) return setRefusal(new Refused({ code: "too-large", limit: "12,000 pixels a side" }));
    setRefusal(null);
    onTaken(await syncQueue.addPhoto(file));
  };
  return (
    <span className="inline-block">
      <label
        className={`head inline-flex cursor-pointer items-center gap-2 rounded-md border border-ink bg-panel px-4 text-base font-semibold focus-within:outline-3 ${isLarge ? "min-h-16" : "min-h-11"}`}
      >
        <Camera size={18} aria-hidden />
        {says}
        <input
          type="file"
          accept={kinds.join(",")}
          capture="environment"
          className="sr-only"
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            if (file !== undefined) void keep(file);
            event.target.value = "";
          }}
        />
      </label>
      {refusal !== null && <ErrorNotice error={refusal} />}
    </span>
  );
}

/** The longer side of a picture in pixels; null when it is none. Refused here and now, not an hour later by the server. */
async function measurePicture(file: File): Promise<number | null> {
  if (!("createImageBitmap" in globalThis)) return 0;
  try {
    const picture = await createImageBitmap(file);
    const longer = Math.max(picture.width, picture.height);
    picture.close();
    return longer;
  } catch {
    return null;
  }
}

/** Photos small, in a row; each opens large. */
export function PhotoRow({ photos, says }: { photos: readonly { photo: string }[]; says: string }) {
  if (photos.length === 0) return null;
  return (
    <ul aria-label={`Photos: ${says}`} className="mt-2 flex flex-wrap gap-2">
      {photos.map(({ photo }, i) => (
        <li key={photo}>
          <PhotoLink photo={photo} says={`${says}, photo ${i + 1}`} />
        </li>
      ))}
    </ul>
  );
}
