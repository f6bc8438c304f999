import { Link } from "react-router";
import { everyone, isOneOf, keepers, owners } from "../../../api/index.ts";
import { useMe } from "../../app/useMe.ts";

/** What is looked at now and then. */
const pages = [
  {
    to: "/messages",
    says: "Messages",
    why: "Everything that was sent, is ready, waits, failed or was answered",
    admits: everyone,
  },
  {
    to: "/reports",
    says: "Reports",
    why: "What twelve months have taught: minutes, what is put off, first services, break-ins",
    admits: keepers,
  },
  {
    to: "/account",
    says: "Your account",
    why: "Password, second step at sign-in, where you are signed in",
    admits: everyone,
  },
  { to: "/staff", says: "Staff", why: "Invite people, change what they may do, share a tablet", admits: owners },
  { to: "/store", says: "Store", why: "Name, address, phone, time zone, units, spelling, paper", admits: owners },
  { to: "/rights", says: "Who may do what", why: "Each role, as the server holds it", admits: everyone },
  {
    to: "/audit",
    says: "Who did what",
    why: "Sign-ins, changes to staff, settings, library and boats, what was opened",
    admits: owners,
  },
  {
    to: "/verify",
    says: "Verify a record",
    why: "Is a handover file what was sealed? No sign-in needed",
    admits: everyone,
  },
] as const;

export function MoreScreen() {
  const { role } = useMe();
  const mine = pages.filter(({ admits }) => isOneOf(admits, role));
  return (
    <main className="max-w-3xl px-4 pt-6 pb-10 md:px-8">
      <h1 className="text-2xl font-bold">More</h1>
      <ul className="mt-3 border-t border-ink">
        {mine.map(({ to, says, why }) => (
          <li key={to} className="border-b border-rule">
            <Link to={to} className="block min-h-14 py-3 no-underline hover:bg-shoal">
              <span className="head font-semibold underline">{says}</span>
              <span className="block text-soft">{why}</span>
            </Link>
          </li>
        ))}
      </ul>
    </main>
  );
}
