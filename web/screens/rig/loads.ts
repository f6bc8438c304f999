import { addItem, createItemId, formatPartKind, type PartKind, partKinds, type Rig } from "../../../core/rig/index.ts";
import { lowerFirst } from "../../../core/text/index.ts";

export const loadOptions = (rig: Rig) => rig.loads.map(({ id, label }) => [id, label] as const);

const usualA = 3;

/** The rig with a consumer of this name, and its id; one that is named as a thing aboard, or as its kind, is for it. */
export function addLoad(rig: Rig, label: string): { rig: Rig; id: string } {
  const id = createItemId(rig, "loads", label);
  const isSaid = (name: string) => name.toLowerCase() === label.toLowerCase();
  const part = rig.parts.find((each) => isSaid(each.label));
  const kind = part?.kind ?? partKinds.find((each) => isSaid(formatPartKind(each)));
  const isOneOfSeveral = part !== undefined && rig.parts.filter((each) => each.kind === part.kind).length > 1;
  const load: Load = { id, label, amps: usualA, always: false };
  if (kind !== undefined) load.serves = [kind];
  if (isOneOfSeveral) load.parts = [part.id];
  return { rig: addItem(rig, "loads", load), id };
}

type Load = Rig["loads"][number];

/** What a consumer may run: things aboard by their own names, then kinds of things. */
export const runOptions = (rig: Rig): (readonly [string, string])[] => [
  ...rig.parts.map(({ id, label }) => [partMark + id, label] as const),
  ...partKinds.map((kind) => [kind, `any ${lowerFirst(formatPartKind(kind))}`] as const),
];

/** Stands before the id of a part among kinds. */
const partMark = "part:";

export const readRuns = ({ serves = [], parts = [] }: Load, rig: Rig): string[] => {
  const named = new Set(rig.parts.filter(({ id }) => parts.includes(id)).map(({ kind }) => kind));
  return [...parts.map((id) => partMark + id), ...serves.filter((kind) => !named.has(kind))];
};

/** What was picked of `runOptions`, as a consumer keeps it. */
export function writeRuns(picked: readonly string[], rig: Rig): Pick<Load, "serves" | "parts"> {
  const ids = picked.filter((each) => each.startsWith(partMark)).map((each) => each.slice(partMark.length));
  const kinds = rig.parts.filter(({ id }) => ids.includes(id)).map(({ kind }) => kind);
  const serves = picked.filter((each): each is PartKind => partKinds.includes(each as PartKind));
  return { serves: [...new Set([...serves, ...kinds])], parts: ids.length === 0 ? undefined : ids };
}
