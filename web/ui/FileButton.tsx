import type { ReactNode } from "react";

interface FileButtonProps {
  readonly says: ReactNode;
  readonly accept: string;
  readonly onFile: (file: File) => void;
  readonly isBusy?: boolean;
}

/** A button that asks for a file; the same file can be chosen again. */
export function FileButton({ says, accept, onFile, isBusy = false }: FileButtonProps) {
  return (
    <label className="head inline-flex min-h-11 cursor-pointer items-center gap-2 rounded-md border border-ink bg-panel px-4 font-semibold focus-within:outline-3">
      {says}
      <input
        type="file"
        accept={accept}
        disabled={isBusy}
        className="sr-only"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file !== undefined) onFile(file);
          event.target.value = "";
        }}
      />
    </label>
  );
}
