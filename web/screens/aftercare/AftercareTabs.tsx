import { NavLink } from "react-router";

const tabs = [
  { to: "/aftercare", says: "This week" },
  { to: "/aftercare/calls", says: "Calls" },
  { to: "/aftercare/owed", says: "Owed" },
];

/** Call list and why: this week, calls that came in, what is owed. */
export function AftercareTabs() {
  return (
    <nav aria-label="Call list" className="mb-4 flex flex-wrap gap-x-1 border-b border-ink print:hidden">
      {tabs.map(({ to, says }) => (
        <NavLink
          key={to}
          to={to}
          end
          className={({ isActive }) =>
            `head flex min-h-11 items-center rounded-t-md px-3 no-underline ${isActive ? "bg-ink font-bold text-sheet" : ""}`
          }
        >
          {says}
        </NavLink>
      ))}
    </nav>
  );
}
