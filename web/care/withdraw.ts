import type { NewWithdrawal } from "../../api/index.ts";
import { ask } from "../app/client.ts";
import { boatQuery, queryClient } from "../app/queries.ts";

/** Takes out or puts right what was entered about a boat of the store's. Throws Refused. */
export async function withdraw(boat: string, body: NewWithdrawal): Promise<void> {
  await ask("withdraw", { params: { boat }, body });
  await queryClient.invalidateQueries({ queryKey: boatQuery(boat).queryKey });
}
