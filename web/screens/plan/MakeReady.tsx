import { Link } from "react-router";
import type { Delivery } from "../../../api/index.ts";
import { isInOrder, type WalkState } from "../../../core/walk/index.ts";

const mostShown = 8;

/** How far make-ready is; it is done on a screen of its own. */
export function MakeReady({ delivery, state }: { delivery: Delivery; state: WalkState }) {
  const open = delivery.makeReady.filter((check) => !isInOrder(state, check));
  const wrong = open.filter(({ id }) => state.ready.get(id)?.ok === false);
  return (
    <section aria-labelledby="ready">
      <h2 id="ready" className="flex justify-between text-lg font-bold">
        Make-ready
        <span className="num font-normal text-soft">
          {delivery.makeReady.length - open.length} of {delivery.makeReady.length}
        </span>
      </h2>
      <div className="border-t border-ink pt-1">
        {open.length === 0 && <p>Every check is done.</p>}
        <ul>
          {[...wrong, ...open.filter((check) => !wrong.includes(check))].slice(0, mostShown).map((check) => (
            <li
              key={check.id}
              className={`border-b border-rule py-1 ${wrong.includes(check) ? "text-magenta" : "text-soft"}`}
            >
              {wrong.includes(check) ? "▲" : "◷"} {check.title}
            </li>
          ))}
        </ul>
        {open.length > mostShown && <p className="text-soft">and {open.length - mostShown} more</p>}
        {delivery.seal === null && (
          <Link
            to={`/deliveries/${delivery.id}/ready`}
            className="head inline-flex min-h-11 items-center font-semibold underline"
          >
            {open.length === 0 ? "Look at make-ready" : "Go on with make-ready"}
          </Link>
        )}
      </div>
    </section>
  );
}
