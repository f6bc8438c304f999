import { Link, useLocation, useRouteError } from "react-router";
import { Button } from "../ui/Button.tsx";
import { describeError } from "../ui/errorWords.ts";

/** What browsers say when a part of the app is neither on the device nor to be had. */
const missingPart = /dynamically imported module|module script failed|Loading chunk/i;

/** No such page, or a page that failed: what happened, and the ways out. */
export function LostScreen() {
  const error = useRouteError();
  const isOwners = useLocation().pathname.startsWith("/o/");
  const isMissing = error instanceof Error && missingPart.test(error.message);
  return (
    <main className="mx-auto max-w-xl p-10">
      <h1 className="text-2xl font-bold">{error == null ? "There is no page here" : "This page could not be shown"}</h1>
      <p className="mt-3">
        {error == null
          ? "The address may be mistyped."
          : isMissing
            ? "This part is not on the device yet, and there is no signal. What you entered before is kept."
            : describeError(error)}
      </p>
      <p className="mt-4 flex flex-wrap items-center gap-4">
        {error != null && (
          <Button look="primary" onClick={() => window.location.reload()}>
            Try again
          </Button>
        )}
        {!isOwners && (
          <Link to="/" className="inline-flex min-h-11 items-center underline">
            Go to Today
          </Link>
        )}
      </p>
    </main>
  );
}
