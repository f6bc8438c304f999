import type { Delivery } from "../../api/index.ts";

/** Who may be given something to fix: all who work here; of a page kept by an older app those who entered something. */
export const listWhoFixes = ({ colleagues, staff }: Pick<Delivery, "colleagues" | "staff">): readonly string[] =>
  colleagues ?? staff.map(({ name }) => name);
