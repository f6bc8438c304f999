import { useState } from "react";
import { ErrorNotice } from "./Notice.tsx";

interface Gone<T> {
  readonly what: T;
  /** "Cape Haldern, ours". */
  readonly name: string;
}

/** What was taken away last on a screen, kept so that one touch brings it back. */
export function useGone<T>() {
  const [gone, setGone] = useState<Gone<T> | null>(null);
  return { gone, setGone };
}

interface RemovedProps<T> {
  readonly gone: Gone<T> | null;
  readonly isBusy: boolean;
  readonly error: Error | null;
  readonly onUndo: (what: T) => void;
}

/** Stands where something was taken away, and brings it back. */
export function Removed<T>({ gone, isBusy, error, onUndo }: RemovedProps<T>) {
  if (gone === null) return error === null ? null : <ErrorNotice error={error} />;
  return (
    <div>
      <p role="status" className="my-2 flex flex-wrap items-center gap-x-4 border-l-4 border-helm pl-3">
        {gone.name} was taken away.
        <button
          type="button"
          className="min-h-11 font-semibold underline"
          disabled={isBusy}
          onClick={() => onUndo(gone.what)}
        >
          Undo
        </button>
      </p>
      {error !== null && <ErrorNotice error={error} />}
    </div>
  );
}
