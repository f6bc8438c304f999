import { Link } from "react-router";
import type { Delivery } from "../../../api/index.ts";
import { isOneOf, owners } from "../../../api/roles.ts";
import { struckName } from "../../../core/walk/index.ts";
import { useMe } from "../../app/useMe.ts";

/** To the owner: where each buyer's data is taken along or forgotten. */
export function TheirData({ delivery }: { delivery: Delivery }) {
  const me = useMe();
  const buyers = delivery.buyers.filter(({ name }) => name !== struckName);
  if (!isOneOf(owners, me.role) || buyers.length === 0) return null;
  return (
    <section aria-labelledby="their-data">
      <h2 id="their-data" className="text-lg font-bold">
        Their data
      </h2>
      <ul className="border-t border-ink">
        {buyers.map(({ id, name }) => (
          <li key={id} className="border-b border-rule">
            <Link
              to={`/deliveries/${delivery.id}/buyers/${id}`}
              className="inline-flex min-h-11 items-center break-words underline"
            >
              What is held of {name}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
