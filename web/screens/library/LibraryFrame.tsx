import type { ReactNode } from "react";
import { Link, useLocation } from "react-router";

const pages = [
  ["/library", "Topics"],
  ["/library/schools", "Methods"],
  ["/library/styles", "Route styles"],
  ["/library/templates", "Templates"],
  ["/library/packs", "Packs"],
  ["/library/glossary", "Glossary"],
  ["/library/languages", "Languages"],
] as const;

/** The library's pages, one line of them above each. */
export function LibraryFrame({ children }: { children: ReactNode }) {
  const { pathname } = useLocation();
  const now = pages.findLast(([to]) => pathname.startsWith(to))?.[0];
  return (
    <main className="px-4 pt-4 pb-12 md:px-8">
      <div className="flex flex-wrap items-baseline gap-x-1 border-b border-ink">
        <h1 className="mr-5 text-2xl font-bold">Library</h1>
        {pages.map(([to, says]) => (
          <Link
            key={to}
            to={to}
            className={`head flex min-h-11 items-center rounded-t-md px-3 no-underline ${to === now ? "bg-ink font-bold text-sheet" : ""}`}
          >
            {says}
          </Link>
        ))}
      </div>
      {children}
    </main>
  );
}
