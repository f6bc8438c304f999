import { Link } from "react-router";
import { useMe } from "../../app/useMe.ts";
import { linkLook } from "../../ui/Button.tsx";

const offers = [
  {
    title: "Describe your first boat",
    says: "Take a template that is near it and change what is different: a quarter of an hour, once a model. Its walk, make-ready and cards follow from it.",
    to: "/boats/new",
    action: "Describe a boat",
  },
  {
    title: "Read a stock list",
    says: "A spreadsheet saved as CSV, as your dealer system gives it. You match its columns, look at each line, and take in what is right.",
    to: "/boats/stock",
    action: "Read a list",
  },
  {
    title: "Invite your people",
    says: "Each gets a code that works once. What a role may do stands beside it.",
    to: "/staff",
    action: "Invite somebody",
  },
] as const;

/** What to do first in a store that has nothing yet. */
export function WelcomeScreen() {
  const { store, name } = useMe();
  return (
    <main className="max-w-3xl px-4 pt-6 pb-10 md:px-8">
      <h1 className="text-2xl font-bold">{store} is ready</h1>
      <p className="mt-1 text-soft">You are signed in as {name}, its owner. Begin with whichever is nearest.</p>
      <ol className="mt-4 border-t border-ink">
        {offers.map(({ title, says, to, action }) => (
          <li key={to} className="flex flex-wrap items-center gap-x-6 gap-y-2 border-b border-rule py-4">
            <div className="min-w-64 flex-1">
              <h2 className="font-bold">{title}</h2>
              <p className="text-soft">{says}</p>
            </div>
            <Link to={to} className={linkLook("plain")}>
              {action}
            </Link>
          </li>
        ))}
        <li className="py-4">
          <h2 className="font-bold">Look round first</h2>
          <p className="text-soft">
            The demo is a made-up yard in a folder of its own; it touches nothing of yours. On the machine Ravik runs
            on: <code>PORT=4601 npm run demo</code>
          </p>
        </li>
      </ol>
    </main>
  );
}
