import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import type { Rig } from "../../../core/rig/index.ts";
import { ask } from "../../app/client.ts";
import { queryClient, templatesQuery } from "../../app/queries.ts";
import { Button } from "../../ui/Button.tsx";
import { TextField } from "../../ui/fields.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { toTemplateId } from "./toTemplateId.ts";

/** Keeps this rig as the template of its model, so that the next one starts from it. */
export function SaveTemplate({ rig }: { rig: Rig }) {
  const [name, setName] = useState(`${rig.model}, ours`);
  const save = useMutation({
    mutationFn: () => ask("setTemplate", { params: { template: toTemplateId(name) }, body: { name, rig } }),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: templatesQuery.queryKey }),
  });
  return (
    <section aria-labelledby="as-template" className="mt-6 border-t border-ink pt-3">
      <h3 id="as-template" className="font-bold">
        Save as a template
      </h3>
      <p className="text-soft">
        The next boat of this model then starts as this one stands. A name used before is replaced.
      </p>
      <div className="mt-2 flex max-w-xl items-end gap-3">
        <div className="flex-1">
          <TextField label="Template name" value={name} onChange={setName} />
        </div>
        <Button disabled={save.isPending || name.trim() === ""} onClick={() => save.mutate()}>
          Save the template
        </Button>
      </div>
      {save.isSuccess && (
        <p role="status" className="mt-2">
          Kept. It is among the templates for new boats and stock lists.
        </p>
      )}
      {save.error !== null && <ErrorNotice error={save.error} />}
    </section>
  );
}
