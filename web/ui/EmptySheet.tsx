import type { ReactNode } from "react";

/** In the place of a list that has nothing in it: a boat, what would stand here, and where to go on. */
export function EmptySheet({ children }: { children: ReactNode }) {
  return (
    <div className="mt-4 flex flex-wrap items-center gap-x-10 gap-y-4 border-t border-ink py-6">
      <img src="/boat.svg" alt="" className="boat-picture h-56 w-24 object-contain" />
      <div className="max-w-prose flex-1 basis-60 text-lg text-soft">{children}</div>
    </div>
  );
}
