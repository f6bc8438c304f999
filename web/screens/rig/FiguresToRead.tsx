import { useState } from "react";
import { listUnread, type Rig, type Unread } from "../../../core/rig/index.ts";
import { RigFigure } from "./RigFigure.tsx";
import { type SectionProps, sectionNames } from "./section.ts";

const where: Record<Unread["section"], string> = {
  boat: "from the maker's sheet; the draft measured",
  engines: "from the engine's manual",
  tanks: "from the tank or the boat's manual",
  power: "from the battery's label",
  trailer: "from its plates; bunks and fenders measured",
};

/**
 * Every figure that somebody has to read on the boat, in one place, by where one stands to read it. What was open when it was
 * first shown stays in its place while it is filled in.
 */
export function FiguresToRead({ rig, edit }: Pick<SectionProps, "rig" | "edit">) {
  const [shown, setShown] = useState<readonly Unread[]>([]);
  const known = new Set(shown.flatMap(({ paths }) => paths));
  const fresh = listUnread(rig).filter(({ paths }) => paths.some((path) => !known.has(path)));
  if (fresh.length > 0) {
    setShown(mergeUnread(shown, fresh));
    return null;
  }
  const groups = shown.map(({ section, paths }) => ({ section, paths: paths.filter((path) => isThere(rig, path)) }));
  const open = groups.filter(({ paths }) => paths.length > 0);
  if (open.length === 0) return null;
  return (
    <section aria-labelledby="to-read" className="mt-7">
      <h2 id="to-read" className="text-lg font-bold">
        Figures to read on the boat
      </h2>
      {open.map(({ section, paths }) => (
        <fieldset key={section} className="mt-3 border-t border-ink pt-2">
          <legend className="pr-3">
            <b>{sectionNames[section]}</b> <span className="text-soft">{where[section]}</span>
          </legend>
          <div className="mt-1 grid gap-x-6 gap-y-3 sm:grid-cols-2 xl:grid-cols-3">
            {paths.map((path) => (
              <RigFigure key={path} rig={rig} edit={edit} at={path} {...nameItem(rig, path)} />
            ))}
          </div>
        </fieldset>
      ))}
    </section>
  );
}

const order: readonly Unread["section"][] = ["boat", "engines", "tanks", "power", "trailer"];

function mergeUnread(shown: readonly Unread[], fresh: readonly Unread[]): Unread[] {
  const pathsOf = (groups: readonly Unread[], of: Unread["section"]) =>
    groups.flatMap(({ section, paths }) => (section === of ? paths : []));
  return order.map((section) => ({
    section,
    paths: [...new Set([...pathsOf(shown, section), ...pathsOf(fresh, section)])],
  }));
}

/** The item of a list that a figure belongs to, as far as it is still there. */
function findItem(rig: Rig, path: string) {
  const [list, id] = path.split(".");
  if (list !== "engines" && list !== "tanks" && list !== "batteries") return null;
  return rig[list].find((item) => item.id === id);
}

const isThere = (rig: Rig, path: string) =>
  path.startsWith("trailer.") ? rig.trailer !== null : findItem(rig, path) !== undefined;

function nameItem(rig: Rig, path: string): { readonly of?: string } {
  const label = findItem(rig, path)?.label;
  return label === undefined ? {} : { of: label };
}
