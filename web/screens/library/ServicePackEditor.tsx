import { ulid } from "ulid";
import type { PackSheet } from "../../../api/index.ts";
import { type ServiceItem, servicePackSchema } from "../../../core/service/index.ts";
import { Button } from "../../ui/Button.tsx";
import { readPlain } from "../../ui/readPlain.ts";
import { usePackEditing } from "./usePackEditing.tsx";

const field = "num min-h-11 w-16 rounded-md border border-soft bg-panel px-2 text-right";
const months = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];
type Whole = "firstH" | "everyH" | "firstMonths" | "everyMonths" | "labourH";

interface EditorProps {
  readonly line: PackSheet["service"][number];
  readonly onPicked: (id: string) => void;
}

/** A service pack: what falls due when, with its work, parts and hours of labour. */
export function ServicePackEditor({ line, onPicked }: EditorProps) {
  const { pack, setPack, canWrite, bar } = usePackEditing({ kind: "service", given: line.pack, ...line, onPicked });
  const set = (i: number, change: Partial<ServiceItem>) =>
    setPack({ ...pack, items: pack.items.map((item, n) => (n === i ? { ...item, ...change } : item)) });
  const parsed = servicePackSchema.safeParse(pack);
  const number = (i: number, name: Whole, says: string) => (
    <input
      aria-label={`${says}, ${pack.items[i]!.title}`}
      inputMode="decimal"
      disabled={!canWrite}
      className={field}
      defaultValue={pack.items[i]![name] ?? ""}
      onChange={(event) => {
        const text = event.target.value.trim().replace(",", ".");
        if (text === "") set(i, { [name]: undefined });
        else if (Number.isFinite(Number(text))) set(i, { [name]: Number(text) });
      }}
    />
  );
  return (
    <section aria-label={pack.title}>
      <h2 className="mt-3 text-lg font-bold">{pack.title}</h2>
      <p className="text-soft">{pack.basis}</p>
      {!parsed.success && (
        <p role="alert" className="mt-2 border-l-4 border-magenta pl-3 text-magenta">
          ▲ {parsed.error.issues[0]!.path.join(" ")}: {parsed.error.issues[0]!.message}.
        </p>
      )}
      <div className="overflow-x-auto">
        <table className="mt-2">
          <thead>
            <tr className="border-b border-ink">
              <th className="py-1">What</th>
              <th className="pl-2 text-right">First, h</th>
              <th className="pl-2 text-right">Every, h</th>
              <th className="pl-2 text-right">First, months</th>
              <th className="pl-2 text-right">Every, months</th>
              <th className="pl-2 text-right">Labour, h</th>
              <th className="pl-3">Work, a line each</th>
              <th className="pl-3">Parts, a line each</th>
            </tr>
          </thead>
          <tbody>
            {pack.items.map((item, i) => (
              <tr key={item.id} className="border-b border-rule align-top">
                <td className="min-w-40 max-w-44 py-1 font-semibold">
                  <input
                    aria-label={`What it is called, ${item.id}`}
                    disabled={!canWrite}
                    maxLength={60}
                    value={item.title}
                    onChange={(event) => set(i, { title: readPlain(event) })}
                    className="min-h-11 w-40 rounded-md border border-soft bg-panel px-2"
                  />
                  {canWrite && pack.items.length > 1 && (
                    <button
                      type="button"
                      className="min-h-11 font-normal underline"
                      aria-label={`Take out ${item.title}`}
                      onClick={() => setPack({ ...pack, items: pack.items.filter((_, n) => n !== i) })}
                    >
                      Take out
                    </button>
                  )}
                  {item.season !== undefined && (
                    <span className="block text-sm font-normal text-soft">
                      {months[item.season.fromMonth - 1]} to {months[item.season.toMonth - 1]}, whatever the hours
                    </span>
                  )}
                </td>
                <td className="py-1 pl-2">{number(i, "firstH", "First at hours")}</td>
                <td className="py-1 pl-2">{number(i, "everyH", "Every hours")}</td>
                <td className="py-1 pl-2">{number(i, "firstMonths", "First after months")}</td>
                <td className="py-1 pl-2">{number(i, "everyMonths", "Every months")}</td>
                <td className="py-1 pl-2">{number(i, "labourH", "Labour hours")}</td>
                {(["work", "parts"] as const).map((name) => (
                  <td key={name} className="py-1 pl-3">
                    <textarea
                      aria-label={`${name === "work" ? "Work" : "Parts"}, ${item.title}`}
                      disabled={!canWrite}
                      rows={Math.max(2, (item[name] ?? []).length)}
                      defaultValue={(item[name] ?? []).join("\n")}
                      onChange={(event) => {
                        const list = readPlain(event)
                          .split("\n")
                          .map((text) => text.trim().slice(0, 80))
                          .filter((text) => text !== "");
                        set(i, { [name]: list });
                      }}
                      className="w-56 rounded-md border border-soft bg-panel px-2 py-1 text-sm"
                    />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {canWrite && (
        <Button
          className="mt-2"
          onClick={() =>
            setPack({
              ...pack,
              items: [
                ...pack.items,
                {
                  id: `item-${ulid().toLowerCase().slice(-6)}`,
                  title: "Another item",
                  work: ["What is done"],
                  everyMonths: 12,
                  labourH: 1,
                },
              ],
            })
          }
        >
          Another item
        </Button>
      )}
      {bar}
    </section>
  );
}
