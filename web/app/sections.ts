/** The thumb index: where each leads, and the beginnings of the addresses that belong to it; the longest that fits decides. */
export const sections = [
  { to: "/", says: "Today", holds: ["/deliveries"] },
  { to: "/boats", says: "Boats", holds: ["/boats"] },
  { to: "/aftercare", says: "Call list", holds: ["/aftercare"] },
  { to: "/aftercare/workshop", says: "Workshop", holds: ["/aftercare/workshop"] },
  { to: "/library", says: "Library", holds: ["/library"] },
  {
    to: "/more",
    says: "More",
    holds: [
      "/more",
      "/messages",
      "/reports",
      "/staff",
      "/store",
      "/account",
      "/rights",
      "/audit",
      "/bundles",
      "/verify",
    ],
  },
] as const;

/** The address of the section a page belongs to; null of one that belongs to none. "/aftercare/calls" → "/aftercare". */
export function findSection(pathname: string): string | null {
  if (pathname === "/") return "/";
  const held = sections.flatMap(({ to, holds }) => holds.map((start) => ({ to, start })));
  const fitting = held.filter(({ start }) => pathname === start || pathname.startsWith(`${start}/`));
  return fitting.sort((one, other) => other.start.length - one.start.length)[0]?.to ?? null;
}
