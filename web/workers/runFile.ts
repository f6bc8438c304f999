import { expose } from "comlink";
import Papa from "papaparse";
import {
  createCsvRun,
  createNmeaRun,
  findDelimiter,
  guessRunColumns,
  type ReadRun,
  type RunColumns,
  type TraceFault,
} from "../../core/trace/index.ts";

export type RunFile =
  | {
      readonly kind: "csv";
      readonly headings: string[];
      readonly columns: RunColumns | null;
      readonly example: string[];
    }
  | { readonly kind: "nmea" };

export type RunReading =
  | { readonly ok: true; readonly run: ReadRun }
  | { readonly ok: false; readonly faults: TraceFault[]; readonly lines: number };

const chunkBytes = 1_000_000;
const headBytes = 65_536;
let isCancelled = false;

/** How the text of a file is written: by its first bytes, then whether they are UTF-8, then as old programs write. */
async function findEncoding(file: File): Promise<string> {
  const bytes = new Uint8Array(await file.slice(0, headBytes).arrayBuffer());
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return "utf-16le";
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return "utf-16be";
  try {
    // The last bytes may be half a letter.
    new TextDecoder("utf-8", { fatal: true }).decode(bytes.subarray(0, Math.max(0, bytes.length - 4)));
    return "utf-8";
  } catch {
    return "windows-1252";
  }
}

const readHead = async (file: File) =>
  new TextDecoder(await findEncoding(file)).decode(await file.slice(0, headBytes).arrayBuffer());

const delimiterOf = (head: string) => findDelimiter(head.split(/\r?\n/, 1)[0] ?? "");

/** Reads the rows of a file as they come, piece by piece, so that a run of forty hours does not fill the memory. */
function eachRow(
  file: File,
  encoding: string,
  delimiter: string,
  row: (cells: string[], line: number) => boolean,
  onProgress: (share: number) => void,
): Promise<void> {
  return new Promise((resolve, reject) => {
    let line = 0;
    Papa.parse<string[]>(file as never, {
      encoding,
      chunkSize: chunkBytes,
      delimiter,
      chunk({ data, meta }, parser) {
        for (const cells of data) {
          line++;
          if (!row(cells, line)) {
            parser.abort();
            return;
          }
        }
        onProgress(file.size === 0 ? 1 : Math.min(1, meta.cursor / file.size));
        if (isCancelled) parser.abort();
      },
      complete: () => resolve(),
      error: (error: Error) => reject(error),
    });
  });
}

/** Reads a run from a file beside the page: what it is first, then all of it, with progress and a way to stop. */
const worker = {
  async open(file: File): Promise<RunFile> {
    const head = await readHead(file);
    if (/^(\\[^\\]*\\)?[$!][A-Z]{2}/m.test(head.slice(0, 2000)) && /^(\\[^\\]*\\)?[$!]/.test(head.trimStart()))
      return { kind: "nmea" };
    const { data } = Papa.parse<string[]>(head, { preview: 2, delimiter: delimiterOf(head) });
    const headings = (data[0] ?? []).map((name) => name.replace(/^\uFEFF/, "").trim());
    return { kind: "csv", headings, columns: guessRunColumns(headings), example: data[1] ?? [] };
  },

  async read(file: File, columns: RunColumns | null, onProgress: (share: number) => void): Promise<RunReading> {
    isCancelled = false;
    const encoding = await findEncoding(file);
    if (columns === null) {
      const reader = createNmeaRun();
      // A delimiter that no sentence has: each line is one cell.
      await eachRow(
        file,
        encoding,
        "\u0001",
        (cells, line) => {
          reader.push(cells[0] ?? "", line);
          return !reader.collector.isFull;
        },
        onProgress,
      );
      return answer(reader.collector.faults, reader.finish());
    }
    let reader: ReturnType<typeof createCsvRun> | null = null;
    await eachRow(
      file,
      encoding,
      delimiterOf(await readHead(file)),
      (cells, line) => {
        if (reader === null)
          reader = createCsvRun(
            cells.map((name) => name.replace(/^\uFEFF/, "")),
            columns,
          );
        else reader.push(cells, line);
        return reader === null || !reader.collector.isFull;
      },
      onProgress,
    );
    if (reader === null)
      return {
        ok: false,
        faults: [{ line: 1, column: null, message: { phrase: "the file is empty", values: [] } }],
        lines: 0,
      };
    const done = reader as ReturnType<typeof createCsvRun>;
    return answer(done.collector.faults, done.finish());
  },

  /** Stops the reading that goes on; what was read is thrown away. */
  cancel() {
    isCancelled = true;
  },
};

function answer(faults: readonly TraceFault[], run: ReadRun): RunReading {
  if (isCancelled) return { ok: false, faults: [], lines: run.lines };
  if (faults.length > 0) return { ok: false, faults: [...faults], lines: run.lines };
  if (!run.engines.some(({ samples }) => samples.length > 1))
    return {
      ok: false,
      faults: [{ line: run.lines, column: null, message: { phrase: "there is no engine speed in it", values: [] } }],
      lines: run.lines,
    };
  return { ok: true, run };
}
export type RunFileWorker = typeof worker;

expose(worker);
