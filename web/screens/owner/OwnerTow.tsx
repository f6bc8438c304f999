import { useMutation } from "@tanstack/react-query";
import type { OwnerPage } from "../../../api/index.ts";
import type { Vehicle } from "../../../core/tow/index.ts";
import { ask } from "../../app/client.ts";
import { ownerPageQuery, queryClient } from "../../app/queries.ts";
import { TowCheck } from "../../towing/TowCheck.tsx";

/** Whether the owner's car may take the boat, before they come with the wrong ball; the yard sees what they read. */
export default function OwnerTow({ token, page }: { token: string; page: OwnerPage }) {
  const save = useMutation({
    mutationFn: (body: Vehicle) => ask("setOwnerVehicle", { params: { token }, body }),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: ownerPageQuery(token).queryKey }),
  });
  return <TowCheck rig={page.delivery.rig} sheet={page.towing} save={save} />;
}
