import { findUnprintable } from "../../core/text/index.ts";

/** Says which letters of a name paper cannot show, where it is typed; nothing where it can show all of them. */
export function PaperNote({ text }: { text: string }) {
  const letters = findUnprintable(text);
  if (letters === "") return null;
  return (
    <p role="status" className="text-sm text-amber">
      ▲ Paper cannot show {letters}. On screen the name stays as it is; for the papers add it in Latin, Greek or
      Cyrillic letters too.
    </p>
  );
}
