import { Link, Outlet, useLocation } from "react-router";
import { useNewVersion } from "../offline/newVersion.ts";
import { useSyncStatus } from "../offline/useSync.ts";
import { FindBox } from "./FindBox.tsx";
import { PersonMenu } from "./PersonMenu.tsx";
import { Signal } from "./Signal.tsx";
import { findSection, sections } from "./sections.ts";
import { useDayTurn } from "./useDayTurn.ts";
import { useMe } from "./useMe.ts";

const sayCurrent = (pathname: string, to: string) => (pathname === to ? "page" : "true");

/** The thumb index down the left edge and the one line of masthead; on a phone the index lies on top. */
export function Shell() {
  const { store } = useMe();
  const useNewer = useNewVersion();
  const { unsent } = useSyncStatus();
  // A newer Ravik waits until the handover is left and everything of it is sent.
  const { pathname } = useLocation();
  const isBusy = pathname.startsWith("/deliveries/") || unsent > 0;
  const section = findSection(pathname);
  useDayTurn();
  return (
    <div className="min-h-dvh md:grid md:grid-cols-[108px_1fr] print:block">
      <nav
        aria-label="Sections"
        className="flex flex-wrap items-stretch border-b border-ink bg-panel md:block md:border-r md:border-b-0 print:hidden"
      >
        <p className="head px-4 py-3 text-xl font-extrabold max-md:hidden md:py-4">Ravik</p>
        {sections.map(({ to, says }) => (
          <Link
            key={to}
            to={to}
            aria-current={section === to ? sayCurrent(pathname, to) : undefined}
            className={`head flex min-h-12 items-center font-semibold no-underline max-md:flex-auto max-md:justify-center max-md:px-1 max-md:text-sm md:px-4 md:border-b md:border-rule ${
              section === to ? "bg-ink text-sheet md:-mr-2 md:rounded-r-md" : ""
            }`}
          >
            {says}
          </Link>
        ))}
      </nav>
      <div className="min-w-0">
        <header className="flex print:hidden min-h-14 items-center gap-x-3 border-b border-rule px-4 md:gap-x-6 md:px-8">
          <p className="head mr-auto text-soft max-md:hidden">{store}</p>
          <span className="max-md:mr-auto">
            <FindBox />
          </span>
          {useNewer !== null && !isBusy && (
            <button type="button" className="min-h-11 underline" onClick={useNewer}>
              New version: update
            </button>
          )}
          <Signal />
          <PersonMenu />
        </header>
        <Outlet />
      </div>
    </div>
  );
}
