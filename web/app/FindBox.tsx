import { lazy, Suspense, useState } from "react";
import { useKeys } from "../ui/useKeys.ts";

const FindList = lazy(async () => ({ default: (await import("./FindList.tsx")).FindList }));

const findLook =
  "w-56 max-md:w-24 rounded-md border border-rule bg-panel px-3 py-2 text-left placeholder:text-soft lg:w-72";

/** The place of the finder in the masthead. The finder itself is fetched when it is first asked for, by touch or `/`. */
export function FindBox() {
  const [isOpen, setOpen] = useState(false);
  useKeys([{ key: "/", says: "Find", act: () => setOpen(true) }]);
  const button = (
    <button
      type="button"
      className={`${findLook} flex min-h-11 items-center justify-between font-text text-soft`}
      onClick={() => setOpen(true)}
    >
      <span>
        Find<span className="max-md:hidden"> a boat, a buyer</span>
      </span>
      <kbd aria-hidden className="num text-sm">
        /
      </kbd>
    </button>
  );
  if (!isOpen) return button;
  return (
    <Suspense fallback={button}>
      <FindList look={findLook} />
    </Suspense>
  );
}
