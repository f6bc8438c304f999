import { NavLink } from "react-router";

const tabs = [
  { to: "/aftercare", says: "This week" },
  { to: "/aftercare/workshop", says: "Workshop" },
  { to: "/aftercare/owed", says: "Owed" },
];

/** The desks of the months after, side by side. */
export function AftercareTabs() {
  return (
    <nav aria-label="Aftercare" className="mb-4 flex gap-6 border-b border-ink print:hidden">
      {tabs.map(({ to, says }) => (
        <NavLink
          key={to}
          to={to}
          end
          className={({ isActive }) =>
            `head inline-flex min-h-11 items-center font-semibold no-underline ${isActive ? "border-b-4 border-ink" : "text-soft"}`
          }
        >
          {says}
        </NavLink>
      ))}
    </nav>
  );
}
