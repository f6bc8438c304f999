import { Link, useRouteError } from "react-router";
import { describeError } from "../ui/errorWords.ts";

/** No such page, or a page that failed. */
export function LostScreen() {
  const error = useRouteError();
  return (
    <main className="mx-auto max-w-xl p-10">
      <h1 className="text-2xl font-bold">{error == null ? "There is no page here" : "This page could not be shown"}</h1>
      <p className="mt-3">{error == null ? "The address may be mistyped." : describeError(error)}</p>
      <p className="mt-4">
        <Link to="/" className="underline">
          Go to Today
        </Link>
      </p>
    </main>
  );
}
