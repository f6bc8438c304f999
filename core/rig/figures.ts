import type { Idiom } from "../region/index.ts";
import { isTyped, type Quantity, sayAmount, type Typed } from "../units/index.ts";
import { resizeRig } from "./resizeRig.ts";
import type { Rig } from "./rig.ts";

/** Lengths that are held against the eye and said in inches or centimetres. */
const heights = /(Height|Draft|FromTransom)M$/;

/**
 * What a figure of a rig measures, by the unit in its name; null of counts and names. "trailer.tyreKpa" → "pressure". Names end
 * in their unit throughout the format (`docs/formats`).
 */
export function quantityOf(path: string): Quantity | null {
  const name = path.split(".").at(-1)!;
  if (heights.test(name)) return "height";
  if (/^(loaM|beamM|hitchToTransomM|xM|yM)$/.test(name)) return "length";
  if (name.endsWith("Mm")) return "ball";
  if (/Kg$|^kg$/.test(name)) return "mass";
  if (name.endsWith("Lph")) return "flow";
  if (name.endsWith("Kpa")) return "pressure";
  if (name.endsWith("Kw")) return "power";
  return name === "litres" || name === "ballastL" ? "volume" : null;
}

/** A figure by its path, items of a list by their id: "trailer.tyreKpa", "tanks.main.litres". Undefined where there is none. */
export function readFigure(rig: Rig, path: string): number | undefined {
  let at: unknown = rig;
  for (const name of path.split(".")) {
    if (Array.isArray(at)) at = (at as { id?: string }[]).find(({ id }) => id === name);
    else at = typeof at === "object" && at !== null ? (at as Record<string, unknown>)[name] : undefined;
  }
  return typeof at === "number" ? at : undefined;
}

/**
 * The rig with a figure changed, and what was typed for it beside. Undefined takes an optional figure away. Another length or
 * beam moves what is aboard with it (`resizeRig`).
 */
export function setFigure(rig: Rig, path: string, value: number | undefined, typed?: Typed): Rig {
  const { typed: known = {}, ...bare } = rig;
  const { [path]: _, ...others } = known;
  const figures = typed === undefined ? others : { ...others, [path]: typed };
  const changed =
    path === "loaM" && value !== undefined
      ? resizeRig(bare, value, rig.beamM)
      : path === "beamM" && value !== undefined
        ? resizeRig(bare, rig.loaM, value)
        : (setAt(bare, path.split("."), value) as Rig);
  const read = value === undefined ? changed : markRead(changed, path);
  return Object.keys(figures).length === 0 ? read : { ...read, typed: figures };
}

/** A figure that was put in stands in for none any more once it is typed. */
function markRead(rig: Rig, path: string): Rig {
  const [list, id, figure] = path.split(".");
  const strip = <T extends { id: string; usual?: boolean | undefined }>(items: readonly T[]): T[] =>
    items.map((item) => {
      if (item.id !== id || item.usual === undefined) return item;
      const { usual: _, ...rest } = item;
      return rest as T;
    });
  if (list === "tanks" && figure === "litres") return { ...rig, tanks: strip(rig.tanks) };
  return list === "batteries" && figure === "capacityAh" ? { ...rig, batteries: strip(rig.batteries) } : rig;
}

function setAt(at: unknown, [name, ...rest]: string[], value: number | undefined): unknown {
  if (name === undefined) return value;
  if (Array.isArray(at)) return at.map((item) => (item.id === name ? setAt(item, rest, value) : item));
  const { [name]: inner, ...others } = (at ?? {}) as Record<string, unknown>;
  const changed = setAt(inner, rest, value);
  // In its old place, so that a sheet that was changed and changed back is the same text.
  return changed === undefined ? others : { ...(at as object), [name]: changed };
}

/** What was typed for a figure, as long as it is still what the rig holds. */
export function typedOf(rig: Rig, path: string): Typed | undefined {
  const [amount, quantity, typed] = [readFigure(rig, path), quantityOf(path), rig.typed?.[path]];
  return amount !== undefined && quantity !== null && isTyped(typed, amount, quantity) ? typed : undefined;
}

/** A figure in the store's units, as it was typed where it was typed in them; null where the rig does not say. */
export function sayFigure(rig: Rig, path: string, { units }: Pick<Idiom, "units">): string | null {
  const [amount, quantity] = [readFigure(rig, path), quantityOf(path)];
  if (amount === undefined) return null;
  return quantity === null ? String(amount) : sayAmount(amount, quantity, units, typedOf(rig, path));
}
