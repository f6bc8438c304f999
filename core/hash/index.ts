export { type Hash, hashBytes, hashText, sha256Schema } from "./sha256.ts";
export { hashJson, writeJson } from "./writeJson.ts";
