import { Check } from "lucide-react";
import type { Delivery } from "../../../api/index.ts";
import type { WalkState } from "../../../core/walk/index.ts";
import { journal } from "../../offline/useJournal.ts";

/** What the workshop checks before the buyer comes. A touch ticks, another takes it back. */
export function MakeReady({ delivery, state }: { delivery: Delivery; state: WalkState }) {
  const done = delivery.makeReady.filter(({ id }) => state.ready.get(id)?.ok === true).length;
  return (
    <section aria-labelledby="ready">
      <h2 id="ready" className="flex justify-between text-lg font-bold">
        Make-ready
        <span className="num font-normal text-soft">
          {done} of {delivery.makeReady.length}
        </span>
      </h2>
      <ul className="border-t border-ink">
        {delivery.makeReady.map(({ id, title, why }) => {
          const entry = state.ready.get(id);
          const isDone = entry?.ok === true;
          return (
            <li key={id} className="border-b border-rule">
              <button
                type="button"
                role="checkbox"
                aria-checked={isDone}
                disabled={delivery.seal !== null}
                title={why}
                className="flex min-h-11 w-full items-center gap-3 text-left font-text"
                onClick={() => void journal.add(delivery.id, { kind: "ready", check: id, ok: !isDone })}
              >
                <span aria-hidden className="grid size-5 place-items-center rounded-sm border border-ink">
                  {isDone && <Check size={16} strokeWidth={3} />}
                </span>
                {title}
                {isDone && (
                  <span className="ml-auto text-sm whitespace-nowrap text-soft">
                    {delivery.staff.find((person) => person.id === entry.by)?.name.split(" ")[0] ?? ""}
                  </span>
                )}
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
