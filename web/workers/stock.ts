import { expose } from "comlink";
import Papa from "papaparse";
import { guessMapping, readStock, type StockAids, type StockMapping, type StockRow } from "../../core/stock/index.ts";

export interface StockFile {
  readonly headings: string[];
  readonly count: number;
  readonly mapping: StockMapping;
  /** What the reader of the file stumbled over, by line. */
  readonly faults: string[];
}

let rows: string[][] = [];
const mostFaults = 5;

/** Reads a stock list beside the page: the file once, its rows anew with each change of the columns. */
const worker = {
  async open(file: File): Promise<StockFile> {
    const { data, errors } = Papa.parse<string[]>(await file.text(), { skipEmptyLines: "greedy" });
    const [headings = [], ...rest] = data;
    rows = rest;
    const faults = errors
      .filter(({ code }) => code !== "UndetectableDelimiter")
      .slice(0, mostFaults)
      .map(({ row, message }) => `line ${(row ?? 0) + 1}: ${message}`);
    return { headings, count: rows.length, mapping: guessMapping(headings), faults };
  },
  read: (aids: StockAids): StockRow[] => readStock(rows, aids),
};

export type StockWorker = typeof worker;

expose(worker);
