export { type Hash, hashBytes, hashText } from "./sha256.ts";
export { sha256Schema } from "./sha256Schema.ts";
export { hashJson, writeJson } from "./writeJson.ts";
