import { expose } from "comlink";
import { verifyFile } from "../screens/verify/verifyFile.ts";

/** A handover file is unpacked, hashed and compared beside the page: a hundred photos take seconds. */
const worker = {
  async verify(file: File) {
    return verifyFile(new Uint8Array(await file.arrayBuffer()));
  },
};
export type VerifyWorker = typeof worker;

expose(worker);
