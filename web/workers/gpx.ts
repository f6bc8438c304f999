import { expose } from "comlink";
import { type GpxFault, type ReadRoute, readGpx } from "../../core/trip/index.ts";

export type GpxReading =
  | { readonly ok: true; readonly route: ReadRoute }
  | { readonly ok: false; readonly fault: GpxFault };

const mostBytes = 60_000_000;

/** Reads a route beside the page: a track of a summer is hundreds of thousands of points. */
const worker = {
  async read(file: File): Promise<GpxReading> {
    if (file.size > mostBytes) return { ok: false, fault: { code: "too-many-points", most: 1_000_000 } };
    const read = readGpx(await file.text());
    return read.ok ? { ok: true, route: read.value } : { ok: false, fault: read.error };
  },
};
export type GpxWorker = typeof worker;
expose(worker);
