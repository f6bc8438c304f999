import { expose } from "comlink";
import { searchFault } from "../../core/faults/index.ts";

const worker = { searchFault };
export type DiagnosisWorker = typeof worker;

expose(worker);
