import { useQuery } from "@tanstack/react-query";
import type { RigSheet } from "../../../api/index.ts";
import { compareRigs, type Rig, type SheetSection } from "../../../core/rig/index.ts";
import { templateQuery } from "../../app/queries.ts";
import { Fetched } from "../../ui/Fetched.tsx";
import { storeRegion } from "../../ui/storeTime.ts";
import { Differences } from "./Differences.tsx";

interface OwnOptionsProps {
  readonly sheet: RigSheet;
  readonly rig: Rig;
  readonly onGo: (section: SheetSection) => void;
}

/** What is this boat's own, against the template it was described from. */
export function OwnOptions({ sheet, rig, onGo }: OwnOptionsProps) {
  const { template } = sheet;
  if (template === null)
    return (
      <p className="border-t border-ink py-3">
        This boat was described from nothing, so there is no template to set it against.
      </p>
    );
  return <Against id={template.id} rig={rig} onGo={onGo} />;
}

function Against({ id, rig, onGo }: { id: string } & Pick<OwnOptionsProps, "rig" | "onGo">) {
  const template = useQuery(templateQuery(id));
  return (
    <Fetched query={template} what="the template">
      {(data) => (
        <Differences template={data.name} differences={compareRigs(data.rig, rig, storeRegion().units)} onGo={onGo} />
      )}
    </Fetched>
  );
}
