import { NavLink } from "react-router";

const tabs = [
  { to: "/aftercare", says: "This week" },
  { to: "/aftercare/calls", says: "Calls" },
  { to: "/aftercare/workshop", says: "Workshop" },
  { to: "/aftercare/owed", says: "Owed" },
];

/** The lists of the months after, side by side. */
export function AftercareTabs() {
  return (
    <nav aria-label="Aftercare" className="mb-4 flex flex-wrap gap-x-1 border-b border-ink print:hidden">
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
