import { Failure } from "../failure.ts";

/** Whether it is here already. Failure: `invalid-input` where the id is of another boat's: acknowledged, it would be lost. */
export function isKept(entered: { readonly boatId: string } | null, boatId: string): boolean {
  if (entered !== null && entered.boatId !== boatId)
    throw new Failure("invalid-input", { issues: [{ path: "id", message: "stands for something of another boat" }] });
  return entered !== null;
}
