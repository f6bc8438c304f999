import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { TemplateLine } from "../../../api/index.ts";
import { readHullNumber } from "../../../core/rig/index.ts";
import type {
  LengthUnit,
  StockBoat,
  StockField,
  StockMapping,
  StockRow,
  StockStart,
} from "../../../core/stock/index.ts";
import { lengthUnits, stockFields, writeSampleStock } from "../../../core/stock/index.ts";
import { ask } from "../../app/client.ts";
import { boatsQuery, hullsQuery, queryClient, templatesQuery } from "../../app/queries.ts";
import { Button } from "../../ui/Button.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { FileButton } from "../../ui/FileButton.tsx";
import { PickField } from "../../ui/fields.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { saveBlob } from "../../ui/saveFile.ts";
import { storeRegion } from "../../ui/storeTime.ts";
import type { StockFile, StockWorker } from "../../workers/stock.ts";
import { useWorker } from "../../workers/useWorker.ts";
import { StockRows } from "./StockRows.tsx";

const fieldNames: Record<StockField, string> = {
  hull: "Hull number",
  stock: "Stock number",
  color: "Color",
  name: "Name",
  maker: "Maker",
  model: "Model",
  modelYear: "Model year",
  family: "Kind of boat",
  length: "Length",
  beam: "Beam",
};
const unitNames: Record<LengthUnit, string> = { m: "metres", ft: "feet", cm: "centimetres", in: "inches" };
const batchSize = 250;

/** A stock list in, as CSV: columns, preview, what is wrong row by row. Nothing is stored before it is confirmed. */
export function StockScreen() {
  const templates = useQuery(templatesQuery);
  const hulls = useQuery(hullsQuery);
  return (
    <Fetched query={templates} what="the templates">
      {(known) => (
        <Fetched query={hulls} what="the boats">
          {({ hulls: taken }) => <Stock templates={known.templates} hulls={taken} />}
        </Fetched>
      )}
    </Fetched>
  );
}

interface StockProps {
  readonly templates: readonly TemplateLine[];
  readonly hulls: readonly string[];
}

function Stock({ templates, hulls }: StockProps) {
  const worker = useWorker<StockWorker>(createStockWorker);
  const [file, setFile] = useState<StockFile | null>(null);
  /** Counts files: what was read of one is never shown of another. */
  const [opened, setOpened] = useState(0);
  const [starts, setStarts] = useState<Readonly<Record<string, StockStart>>>({});
  const [startOfRest, setStartOfRest] = useState<StockStart | null>(null);
  const [mapping, setMapping] = useState<StockMapping | null>(null);
  const [unit, setUnit] = useState<LengthUnit>(storeRegion().units === "metric" ? "m" : "ft");
  const thisYear = new Date().getFullYear();
  const known = new Set(hulls.map((hull) => readHullNumber(hull, thisYear).number));
  const rows = useQuery({
    queryKey: ["stock-rows", opened, mapping, unit, starts, startOfRest, hulls.length, templates.length],
    enabled: file !== null && mapping !== null,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
    // Of the same file what was read stays in sight while a choice is worked out; of another nothing does.
    placeholderData: (before, query) => (query?.queryKey[1] === opened ? before : undefined),
    queryFn: (): Promise<StockRow[]> =>
      worker().read({ mapping: mapping!, unit, templates: [...templates], known, thisYear, starts, startOfRest }),
  });
  const fresh = (rows.data ?? []).flatMap(({ state, boat }) => (state === "new" && boat !== null ? [boat] : []));
  const { add, done } = useAddStock();
  const open = async (chosen: File) => {
    add.reset();
    setFile(null);
    setStarts({});
    setStartOfRest(null);
    const read = await worker().open(chosen);
    setOpened((n) => n + 1);
    setFile(read);
    setMapping(read.mapping);
  };
  return (
    <main className="px-4 pt-5 pb-12 md:px-8">
      <h1 className="text-2xl font-bold">Stock list</h1>
      <p className="max-w-3xl">
        A CSV file, one boat a row, the first row its headings. Each boat starts from the template of its model, or of
        its kind; where none fits, you choose. Nothing is stored until you say so; the same list a second time adds
        nothing.
      </p>
      <div className="mt-3 flex flex-wrap items-center gap-3">
        <FileButton
          says={file === null ? "Choose the file" : "Choose another file"}
          accept=".csv,text/csv,text/plain"
          onFile={(chosen) => void open(chosen)}
        />
        <Button
          look="quiet"
          onClick={() => {
            const rows = writeSampleStock(templates, unit, thisYear);
            const text = rows.map((row) => row.join(",")).join("\r\n");
            saveBlob("stock-list.csv", new Blob([`${text}\r\n`], { type: "text/csv" }));
          }}
        >
          A sample list
        </Button>
        <Link to="/boats" className="inline-flex min-h-11 items-center underline">
          Back to the boats
        </Link>
      </div>
      {add.isSuccess && (
        <p role="status" className="mt-4 border-l-4 border-helm bg-panel px-4 py-3">
          <strong className="num">{add.data}</strong> boats added. Their sheets say what is left to do on each.
        </p>
      )}
      {add.error !== null && (
        <div className="mt-4">
          <ErrorNotice error={add.error}>What was added before stays; adding again goes on from there.</ErrorNotice>
        </div>
      )}
      {file !== null && mapping !== null && (
        <>
          {file.faults.length > 0 && (
            <p role="alert" className="mt-4 border-l-4 border-magenta pl-3 text-magenta">
              ▲ The file has faults: {file.faults.join("; ")}.
            </p>
          )}
          <Columns file={file} mapping={mapping} unit={unit} onMapping={setMapping} onUnit={setUnit} />
          {rows.error !== null && <ErrorNotice error={rows.error} />}
          {rows.data === undefined ? (
            <p role="status" className="mt-5 text-soft">
              Reading {file.count} rows …
            </p>
          ) : (
            <>
              <StockRows
                rows={rows.data}
                templates={templates}
                starts={starts}
                startOfRest={startOfRest}
                onStart={(kind, start) => setStarts({ ...starts, [kind]: start })}
                onRest={setStartOfRest}
              />
              <AddBar
                count={fresh.length}
                done={done}
                isBusy={add.isPending || rows.isPlaceholderData}
                onAdd={() => add.mutate(fresh)}
              />
            </>
          )}
        </>
      )}
    </main>
  );
}

const createStockWorker = () => new Worker(new URL("../../workers/stock.ts", import.meta.url), { type: "module" });

/** Adds boats some hundred at a time; `done`: how many were sent, while they are. */
function useAddStock() {
  const [done, setDone] = useState<number | null>(null);
  const add = useMutation({
    mutationFn: async (wanted: readonly StockBoat[]) => {
      let added = 0;
      for (let i = 0; i < wanted.length; i += batchSize) {
        setDone(i);
        added += (await ask("importBoats", { body: { boats: wanted.slice(i, i + batchSize) } })).added;
      }
      return added;
    },
    onSettled: () => {
      setDone(null);
      return queryClient.invalidateQueries({ queryKey: boatsQuery.queryKey });
    },
  });
  return { add, done };
}

interface ColumnsProps {
  readonly file: StockFile;
  readonly mapping: StockMapping;
  readonly unit: LengthUnit;
  readonly onMapping: (mapping: StockMapping) => void;
  readonly onUnit: (unit: LengthUnit) => void;
}

function Columns({ file, mapping, unit, onMapping, onUnit }: ColumnsProps) {
  return (
    <section aria-labelledby="columns" className="mt-5">
      <h2 id="columns" className="text-lg font-bold">
        Columns
      </h2>
      <div className="grid grid-cols-2 gap-x-6 gap-y-2 border-t border-ink pt-2 md:grid-cols-3 xl:grid-cols-5">
        {stockFields.map((field) => (
          <PickField
            key={field}
            label={fieldNames[field]}
            value={String(mapping[field] ?? "")}
            options={[
              ["", "not in the list"],
              ...file.headings.map((heading, i) => [String(i), heading || `column ${i + 1}`] as const),
            ]}
            onChange={(at) => onMapping({ ...mapping, [field]: at === "" ? null : Number(at) })}
          />
        ))}
        <PickField
          label="Lengths are in"
          value={unit}
          options={lengthUnits.map((each) => [each, unitNames[each]] as const)}
          onChange={onUnit}
        />
      </div>
    </section>
  );
}

interface AddBarProps {
  readonly count: number;
  readonly done: number | null;
  readonly isBusy: boolean;
  readonly onAdd: () => void;
}

function AddBar({ count, done, isBusy, onAdd }: AddBarProps) {
  return (
    <div className="sticky bottom-0 mt-3 flex items-center gap-4 border-t border-ink bg-sheet py-3">
      <Button look="primary" disabled={count === 0 || isBusy} onClick={onAdd}>
        {`Add ${count} boat${count === 1 ? "" : "s"}`}
      </Button>
      {done !== null && (
        <span role="status" className="num text-soft">
          {done} of {count} added …
        </span>
      )}
    </div>
  );
}
