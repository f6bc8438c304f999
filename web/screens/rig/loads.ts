import { addItem, createItemId, formatPartKind, type PartKind, partKinds, type Rig } from "../../../core/rig/index.ts";

export const loadOptions = (rig: Rig) => rig.loads.map(({ id, label }) => [id, label] as const);

const usualA = 3;

/** The rig with a consumer of this name, and its id; one that is named as a thing aboard serves it. */
export function addLoad(rig: Rig, label: string): { rig: Rig; id: string } {
  const id = createItemId(rig, "loads", label);
  const kind = partKinds.find((each) => formatPartKind(each).toLowerCase() === label.toLowerCase());
  const serves: PartKind[] = kind === undefined ? [] : [kind];
  const load = { id, label, amps: usualA, always: false, ...(serves.length === 0 ? {} : { serves }) };
  return { rig: addItem(rig, "loads", load), id };
}
