import { useMutation, useQuery } from "@tanstack/react-query";
import type { TemplateLine } from "../../../api/index.ts";
import type { Rig } from "../../../core/rig/index.ts";
import { ask } from "../../app/client.ts";
import { queryClient, templateQuery, templatesQuery } from "../../app/queries.ts";
import { HullSign } from "../../plan/HullSign.tsx";
import { say } from "../../ui/amounts.ts";
import { Button } from "../../ui/Button.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { FileButton } from "../../ui/FileButton.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { Removed, useGone } from "../../ui/Removed.tsx";
import { saveFile } from "../../ui/saveFile.ts";
import { readRigFile } from "../rig/readRigFile.ts";
import { toTemplateId } from "../rig/toTemplateId.ts";
import { LibraryFrame } from "./LibraryFrame.tsx";
import { useCanWrite } from "./useLibrary.ts";

/** The models boats start from: what ships, and what this store kept from its own boats. */
export function TemplatesScreen() {
  const templates = useQuery(templatesQuery);
  return (
    <LibraryFrame>
      <Fetched query={templates} what="the templates">
        {({ templates: lines }) => <Templates lines={lines} />}
      </Fetched>
    </LibraryFrame>
  );
}

type Kept = Pick<TemplateLine, "id" | "name"> & { readonly rig: Rig };

function Templates({ lines }: { lines: readonly TemplateLine[] }) {
  const canWrite = useCanWrite();
  const { gone, setGone } = useGone<Kept>();
  const remove = useMutation({
    mutationFn: async ({ id, name }: TemplateLine) => {
      // Read before it goes, so that it can come back.
      const { rig } = await queryClient.fetchQuery(templateQuery(id));
      await ask("removeTemplate", { params: { template: id } });
      setGone({ what: { id, name, rig }, name: `The template ${name}` });
      await queryClient.invalidateQueries({ queryKey: templatesQuery.queryKey });
    },
  });
  const bringBack = useMutation({
    mutationFn: async ({ id, name, rig }: Kept) => {
      await ask("setTemplate", { params: { template: id }, body: { name, rig } });
      setGone(null);
      await queryClient.invalidateQueries({ queryKey: templatesQuery.queryKey });
    },
  });
  const importFile = useMutation({
    mutationFn: async (file: File): Promise<string[]> => {
      const read = await readRigFile(file);
      if (!read.ok) return read.problems;
      const name = `${read.rig.model}, from a file`;
      await ask("setTemplate", { params: { template: toTemplateId(name) }, body: { name, rig: read.rig } });
      await queryClient.invalidateQueries({ queryKey: templatesQuery.queryKey });
      return [];
    },
  });
  const save = useMutation({
    mutationFn: async ({ id, name }: TemplateLine) => {
      const { rig } = await queryClient.fetchQuery(templateQuery(id));
      saveFile(`${name}.rig.json`, "application/json", JSON.stringify(rig, null, 2));
    },
  });
  return (
    <>
      <p className="mt-3 max-w-3xl">
        A new boat starts as its template stands. Save one from any boat's sheet, under Boat; boats described from it
        stay as they are when it is removed.
      </p>
      {canWrite && (
        <div className="mt-2">
          <FileButton
            says="Read a template from a file"
            accept="application/json,.json"
            onFile={(file) => importFile.mutate(file)}
          />
        </div>
      )}
      {importFile.data !== undefined && importFile.data.length > 0 && (
        <div role="alert" className="mt-3 border-l-4 border-magenta pl-3">
          <p className="text-magenta">▲ The file was not taken.</p>
          <ul>
            {importFile.data.map((problem) => (
              <li key={problem}>{problem}</li>
            ))}
          </ul>
        </div>
      )}
      {importFile.error !== null && <ErrorNotice error={importFile.error} />}
      {save.error !== null && <ErrorNotice error={save.error} />}
      {importFile.data?.length === 0 && (
        <p role="status" className="mt-2">
          {importFile.variables?.name} was read and stands among the templates below.
        </p>
      )}
      <div className="relative overflow-x-auto">
        <table className="mt-2 w-full max-md:block max-md:border-t max-md:border-ink">
          <thead className="max-md:sr-only">
            <tr className="border-b border-ink">
              <th className="w-48 py-1">From above</th>
              <th>Template</th>
              <th>Model</th>
              <th className="text-right">Length</th>
              <th className="pl-6">Source</th>
            </tr>
          </thead>
          <tbody>
            {lines.map((line) => (
              <tr key={line.id} className="border-b border-rule max-md:block max-md:py-2">
                <td className="py-2 max-md:block">
                  <HullSign family={line.family} loaM={line.loaM} beamM={line.beamM} engines={1} />
                </td>
                <td className="head font-bold max-md:block">{line.name}</td>
                <td className="max-md:block">
                  {line.maker} {line.model}, {line.family.replaceAll("-", " ")}
                </td>
                <td className="num max-md:block md:text-right">{say(line.loaM, "length")}</td>
                <td className="max-md:block md:py-1 md:pl-6">
                  <span className="flex items-center gap-3">
                    <button type="button" className="min-h-11 underline" onClick={() => save.mutate(line)}>
                      Save to a file
                    </button>
                    {line.isShipped ? (
                      <span className="text-soft">ships with Ravik</span>
                    ) : (
                      <Button look="quiet" disabled={!canWrite || remove.isPending} onClick={() => remove.mutate(line)}>
                        Remove
                      </Button>
                    )}
                  </span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <Removed
        gone={gone}
        isBusy={bringBack.isPending}
        error={remove.error ?? bringBack.error}
        onUndo={(kept) => bringBack.mutate(kept)}
      />
    </>
  );
}
