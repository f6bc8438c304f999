import type { ReactNode } from "react";
import { useTell } from "../ui/tell.ts";

/** A screen about a boat: the deck plan stands in its own column, on land while the boat is on its trailer. */
export function BoatPage({ plan, children }: { plan: ReactNode; children: ReactNode }) {
  const tell = useTell();
  return (
    <div className="md:grid md:grid-cols-[280px_1fr] print:block">
      <aside
        aria-label={tell("Deck plan")}
        className="bg-buff p-3 max-md:h-80 md:sticky md:top-0 md:h-[calc(100dvh-57px)] md:border-r md:border-rule print:hidden"
      >
        {plan}
      </aside>
      <main className="min-w-0 px-4 pt-5 pb-12 md:px-8">{children}</main>
    </div>
  );
}
