import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { LibrarySheet } from "../../../api/index.ts";
import { stationKinds } from "../../../core/rig/index.ts";
import { createStyle, type OwnStyle, routeStyles } from "../../../core/route/index.ts";
import { systemNames, systems } from "../../../core/topic/index.ts";
import { ask } from "../../app/client.ts";
import { libraryQuery } from "../../app/queries.ts";
import { Button } from "../../ui/Button.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { ManyField, PickField, TextField } from "../../ui/fields.tsx";
import { Removed, useGone } from "../../ui/Removed.tsx";
import { LibraryFrame } from "./LibraryFrame.tsx";
import { refreshLibrary, useCanWrite } from "./useLibrary.ts";

/** The five schools of walking a boat, and the store's own. */
export function StylesScreen() {
  const library = useQuery(libraryQuery);
  return (
    <LibraryFrame>
      <Fetched query={library} what="the library">
        {(data) => <Styles library={data} />}
      </Fetched>
    </LibraryFrame>
  );
}

const anyPlace = ["", "wherever is best"] as const;
const placeOptions = [anyPlace, ...stationKinds.map((kind) => [kind, `the ${kind}`] as const)] as readonly (readonly [
  string,
  string,
])[];
const sweeps = [
  ["none", "the shortest way"],
  ["bow-to-stern", "from bow to stern"],
  ["stern-to-bow", "from stern to bow"],
] as const;
const trailers = [
  ["first", "first"],
  ["last", "last"],
  ["with-the-rest", "with the rest"],
] as const;

const fresh: OwnStyle = {
  id: "",
  name: "",
  start: null,
  end: null,
  sweep: "none",
  trailer: "last",
  systems: [],
};

function Styles({ library }: { library: LibrarySheet }) {
  const canWrite = useCanWrite();
  const [draft, setDraft] = useState<OwnStyle | null>(null);
  const { gone, setGone } = useGone<OwnStyle>();
  const { ownStyles } = library;
  const save = useMutation({
    mutationFn: (styles: OwnStyle[]) => ask("setStyles", { body: { styles } }),
    onSuccess: async () => {
      setDraft(null);
      await refreshLibrary();
    },
  });
  const keep = (style: OwnStyle) => {
    const id = style.id === "" ? createId(style.name, ownStyles) : style.id;
    save.mutate([...ownStyles.filter((each) => each.id !== id), { ...style, id }]);
  };
  return (
    <>
      <p className="mt-3 max-w-3xl">
        A style says where a walk begins and ends, which way it sweeps and what comes before what. Within that, the
        order with the least walking is found for each boat.
      </p>
      <table className="mt-2 w-full max-md:block max-md:border-t max-md:border-ink">
        <thead className="max-md:sr-only">
          <tr className="border-b border-ink">
            <th className="w-56 py-1">Style</th>
            <th>Order</th>
            <th className="w-48">Source</th>
          </tr>
        </thead>
        <tbody>
          {[...routeStyles, ...ownStyles.map(createStyle)].map(({ id, name, line }) => {
            const own = ownStyles.find((each) => each.id === id);
            return (
              <tr key={id} className="border-b border-rule align-top max-md:block max-md:py-2">
                <td className="head font-bold max-md:block md:py-3">{name}</td>
                <td className="max-md:block md:py-3 md:pr-4">{line}</td>
                <td className="max-md:block md:py-1">
                  {own === undefined ? (
                    <span className="inline-flex min-h-11 items-center text-soft">ships with Ravik</span>
                  ) : (
                    <span className="flex gap-2">
                      <Button disabled={!canWrite} onClick={() => setDraft(own)}>
                        Change
                      </Button>
                      <Button
                        look="quiet"
                        disabled={!canWrite || save.isPending}
                        onClick={() =>
                          save.mutate(
                            ownStyles.filter((each) => each.id !== id),
                            { onSuccess: () => setGone({ what: own, name: `The style ${own.name}` }) },
                          )
                        }
                      >
                        Remove
                      </Button>
                    </span>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <Removed
        gone={gone}
        isBusy={save.isPending}
        error={save.error}
        onUndo={(style) => save.mutate([...ownStyles, style], { onSuccess: () => setGone(null) })}
      />
      {draft === null ? (
        canWrite && (
          <Button className="mt-4" onClick={() => setDraft(fresh)}>
            Make a style of our own
          </Button>
        )
      ) : (
        <StyleForm
          draft={draft}
          onChange={setDraft}
          isBusy={save.isPending}
          onKeep={keep}
          onLeave={() => setDraft(null)}
        />
      )}
    </>
  );
}

interface StyleFormProps {
  readonly draft: OwnStyle;
  readonly isBusy: boolean;
  readonly onChange: (draft: OwnStyle) => void;
  readonly onKeep: (draft: OwnStyle) => void;
  readonly onLeave: () => void;
}

function StyleForm({ draft, isBusy, onChange, onKeep, onLeave }: StyleFormProps) {
  const set = (change: Partial<OwnStyle>) => onChange({ ...draft, ...change });
  return (
    <section aria-label="A style of our own" className="mt-4 max-w-3xl border-l-4 border-helm bg-panel px-4 py-3">
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
        <TextField label="Name" most={40} value={draft.name} onChange={(name) => set({ name })} />
        <PickField label="Trailer" value={draft.trailer} options={trailers} onChange={(trailer) => set({ trailer })} />
        <PickField
          label="Begins at"
          value={draft.start ?? ""}
          options={placeOptions}
          onChange={(start) => set({ start: start === "" ? null : (start as OwnStyle["start"]) })}
        />
        <PickField
          label="Ends at"
          value={draft.end ?? ""}
          options={placeOptions}
          onChange={(end) => set({ end: end === "" ? null : (end as OwnStyle["end"]) })}
        />
        <PickField label="Goes" value={draft.sweep} options={sweeps} onChange={(sweep) => set({ sweep })} />
        <ManyField
          label="Systems first, in this order"
          value={draft.systems}
          options={systems.map((system) => [system, systemNames[system]] as const)}
          onChange={(picked) => set({ systems: picked as OwnStyle["systems"] })}
        />
      </div>
      <p className="mt-2 text-soft">{createStyle({ ...draft, id: "draft", name: draft.name || "New" }).line}</p>
      <div className="mt-3 flex gap-3">
        <Button look="primary" disabled={isBusy || draft.name.trim() === ""} onClick={() => onKeep(draft)}>
          Save the style
        </Button>
        <Button onClick={onLeave}>Cancel</Button>
      </div>
    </section>
  );
}

function createId(name: string, taken: readonly OwnStyle[]): string {
  const base = `own-${name.toLowerCase().replace(/[^a-z0-9]+/g, "-")}`.replace(/-$/, "").slice(0, 50);
  let id = base;
  for (let i = 2; taken.some((style) => style.id === id); i++) id = `${base}-${i}`;
  return id;
}
