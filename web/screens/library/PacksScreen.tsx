import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { PackSheet } from "../../../api/index.ts";
import { ask } from "../../app/client.ts";
import { packsQuery, queryClient } from "../../app/queries.ts";
import { Fetched } from "../../ui/Fetched.tsx";
import { Removed, useGone } from "../../ui/Removed.tsx";
import { BreakInPackEditor } from "./BreakInPackEditor.tsx";
import { LibraryFrame } from "./LibraryFrame.tsx";
import { ServicePackEditor } from "./ServicePackEditor.tsx";
import type { KeptPack, PackBody, Shelf } from "./usePackEditing.tsx";

/** Break-in and service packs: what ships, with the store's own laid over it. */
export function PacksScreen() {
  const packs = useQuery(packsQuery);
  return (
    <LibraryFrame>
      <Fetched query={packs} what="the packs">
        {(data) => <Packs sheet={data} />}
      </Fetched>
    </LibraryFrame>
  );
}

interface Line {
  readonly pack: { readonly id: string; readonly title: string };
  readonly isShipped: boolean;
  readonly isChanged: boolean;
}

const formatKind = ({ isShipped, isChanged }: Line) => (isChanged ? "changed here" : isShipped ? "" : "our own");

function Packs({ sheet }: { sheet: PackSheet }) {
  const [picked, setPicked] = useState(sheet.breakIn[0]!.pack.id);
  const [saved, setSaved] = useState<string | null>(null);
  const { gone, setGone } = useGone<KeptPack>();
  const bringBack = useMutation({
    mutationFn: ({ kind, pack }: KeptPack) =>
      ask("setPack", { params: { pack: pack.id }, body: { kind, pack } as PackBody }),
    onSuccess: async (_, { pack }) => {
      setGone(null);
      await queryClient.invalidateQueries({ queryKey: packsQuery.queryKey });
      setPicked(pack.id);
    },
  });
  const shelf: Shelf = {
    onPicked: setPicked,
    onSaved(id) {
      setSaved(id);
      setGone(null);
    },
    onGone(kept) {
      setSaved(null);
      setGone({ what: kept, name: `The pack “${kept.pack.title}”` });
      // One that ships stays, as it ships.
      const stays = [...sheet.breakIn, ...sheet.service].some(
        (line) => line.pack.id === kept.pack.id && line.isShipped,
      );
      if (!stays) setPicked(sheet.breakIn[0]!.pack.id);
    },
    saved,
  };
  const breakIn = sheet.breakIn.find(({ pack }) => pack.id === picked);
  const service = sheet.service.find(({ pack }) => pack.id === picked);
  const list = (name: string, lines: readonly Line[]) => (
    <section aria-label={name}>
      <h2 className="mt-3 font-bold">{name}</h2>
      <ul className="border-t border-ink">
        {lines.map((line) => (
          <li key={line.pack.id} className={`border-b border-rule ${picked === line.pack.id ? "bg-shoal" : ""}`}>
            <button
              type="button"
              aria-pressed={picked === line.pack.id}
              onClick={() => setPicked(line.pack.id)}
              className="min-h-11 w-full px-2 py-1.5 text-left"
            >
              {line.pack.title} <span className="text-sm text-soft">{formatKind(line)}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
  return (
    <div className="mt-2 grid gap-x-8 lg:grid-cols-[320px_1fr]">
      <div>
        {list("Break-in", sheet.breakIn)}
        {list("Service", sheet.service)}
      </div>
      <div className="min-w-0">
        <Removed gone={gone} isBusy={bringBack.isPending} error={bringBack.error} onUndo={bringBack.mutate} />
        {breakIn !== undefined && <BreakInPackEditor key={picked + breakIn.version} line={breakIn} shelf={shelf} />}
        {service !== undefined && <ServicePackEditor key={picked + service.version} line={service} shelf={shelf} />}
      </div>
    </div>
  );
}
