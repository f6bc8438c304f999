import type { Role } from "../core/walk/index.ts";

/** Their passwords are on the sign-in page: hashing them at length would only keep people waiting. */
export const demoCost = { N: 1024, r: 8, p: 1 } as const;

/** Staff of the made-up yard. The password is no secret: it is printed and shown in demo mode, and only there. */
export const demoAccounts: { id: string; login: string; password: string; name: string; role: Role }[] = [
  { id: "nessa", login: "nessa", password: "slack-water", name: "Nessa Quill", role: "delivery" },
  { id: "tobin", login: "tobin", password: "slack-water", name: "Tobin Ashgrove", role: "technician" },
  { id: "ines", login: "ines", password: "slack-water", name: "Ines Marr", role: "service" },
  { id: "corwin", login: "corwin", password: "slack-water", name: "Corwin Vale", role: "sales" },
  { id: "odile", login: "odile", password: "slack-water", name: "Odile Pellow", role: "owner" },
];
