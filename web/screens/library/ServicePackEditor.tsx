import { useState } from "react";
import { ulid } from "ulid";
import type { PackSheet } from "../../../api/index.ts";
import type { ServiceItem } from "../../../core/service/index.ts";
import { formatEffort, formatWhenDue } from "./formatItem.ts";
import { ServiceItemFields } from "./ServiceItemFields.tsx";
import { type Shelf, usePackEditing } from "./usePackEditing.tsx";

interface EditorProps {
  readonly line: PackSheet["service"][number];
  readonly shelf: Shelf;
}

/** A service pack: what falls due when, an item a line; one opens to be changed. */
export function ServicePackEditor({ line, shelf }: EditorProps) {
  const { pack, setPack, issue, canWrite, addButton, head, bar } = usePackEditing({
    kind: "service",
    given: line.pack,
    ...line,
    shelf,
  });
  const [open, setOpen] = useState<string | null>(null);
  const change = (id: string, changed: Partial<ServiceItem>) =>
    setPack({ ...pack, items: pack.items.map((item) => (item.id === id ? { ...item, ...changed } : item)) });
  const add = () => {
    const id = `item-${ulid().toLowerCase().slice(-6)}`;
    const item = { id, title: "Another item", work: ["What is done"], everyMonths: 12, labourH: 1 };
    setPack({ ...pack, items: [...pack.items, item] });
    setOpen(id);
  };
  return (
    <section aria-label={pack.title}>
      {head}
      <p className="text-soft">{pack.basis}</p>
      {issue !== undefined && (
        <p role="alert" className="mt-2 border-l-4 border-magenta pl-3 text-magenta">
          ▲ {issue.code === "custom" ? issue.message : `${issue.path.join(" ")}: ${issue.message}`}.
        </p>
      )}
      <ul className="mt-2 border-t border-ink">
        {pack.items.map((item) => (
          <li key={item.id} className="border-b border-rule">
            <div className="flex flex-wrap items-center gap-x-4">
              <button
                type="button"
                aria-expanded={open === item.id}
                disabled={!canWrite}
                onClick={() => setOpen(open === item.id ? null : item.id)}
                className="min-h-12 flex-1 py-1.5 text-left"
              >
                <strong>{item.title}</strong> <span className="text-soft">{formatEffort(item)}</span>
                <span className="block">{formatWhenDue(item)}</span>
              </button>
              {canWrite && pack.items.length > 1 && (
                <button
                  type="button"
                  className="min-h-11 underline"
                  aria-label={`Take out ${item.title}`}
                  onClick={() => setPack({ ...pack, items: pack.items.filter(({ id }) => id !== item.id) })}
                >
                  Take out
                </button>
              )}
            </div>
            {open === item.id && <ServiceItemFields item={item} onChange={(changed) => change(item.id, changed)} />}
          </li>
        ))}
      </ul>
      {addButton("Another item", add)}
      {bar}
    </section>
  );
}
