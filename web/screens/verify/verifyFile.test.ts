import { readFileSync } from "node:fs";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { describe, expect, it } from "vitest";
import { bundleFile, findPhotoId } from "../../../core/record/index.ts";
import { verifyFile } from "./verifyFile.ts";

/** Sealed and exported by an earlier build. */
const zip = new Uint8Array(readFileSync(new URL("../../../server/golden/handover-1.zip", import.meta.url)));
const files = unzipSync(zip);
const json = files[bundleFile]!;

const findFault = (bytes: Uint8Array) => {
  const verdict = verifyFile(bytes);
  return "fault" in verdict ? verdict.fault : null;
};
const findSays = (bytes: Uint8Array) => {
  const verdict = verifyFile(bytes);
  if ("fault" in verdict) throw new Error(`findSays: expected an answer, got ${verdict.fault}`);
  return { isIntact: verdict.verified.isIntact, says: verdict.verified.says.join(" ") };
};

describe("a file that somebody hands over to be verified", () => {
  it("is what was sealed: as JSON, as zip with its photos, packed anew by anything", () => {
    for (const file of [json, zip, zipSync(files, { level: 0 })])
      expect(findSays(file)).toEqual({ isIntact: true, says: "" });
  });

  it("is not, when a mark in it was changed", () => {
    const altered = strToU8(strFromU8(json).replace(/"mark":"(did|told|later)"/, '"mark":"off"'));
    expect(altered).not.toEqual(json);
    expect(findSays(altered).isIntact).toBe(false);
    expect(findSays(zipSync({ ...files, [bundleFile]: altered })).isIntact).toBe(false);
  });

  it("is not, when a photo beside it was changed or left out", () => {
    const photo = Object.keys(files).find((name) => findPhotoId(name) !== null)!;
    expect(findSays(zipSync({ ...files, [photo]: strToU8("another") }))).toMatchObject({ isIntact: false });
    const { [photo]: _, ...rest } = files;
    expect(findSays(zipSync(rest))).toMatchObject({ isIntact: false });
  });

  it.each<[string, Uint8Array, RegExp]>([
    ["an empty file", new Uint8Array(), /empty/],
    ["one packed with gzip, or that says so", new Uint8Array([0x1f, 0x8b, 8, 0, 1]), /gzip/],
    ["a zip that was cut off", zip.subarray(0, zip.length / 2), /damaged, or was cut off/],
    ["a zip of something else", zipSync({ "letter.txt": strToU8("Dear") }), /does not belong/],
    ["a zip without the record", zipSync({}), /no .* in it|damaged/],
    [
      "a zip that would unpack to more than a handover has",
      zipSync({ [bundleFile]: new Uint8Array(26_000_000) }),
      /larger/,
    ],
    ["a zip whose record is a picture", zipSync({ [bundleFile]: new Uint8Array([0xff, 0xd8]) }), /not JSON/],
    ["a picture", new Uint8Array([0xff, 0xd8, 0xff]), /not JSON/],
    ["text that is no UTF-8", new Uint8Array([0x7b, 0x22, 0xc3, 0x28]), /not JSON/],
    ["nothing", strToU8("null"), /not a handover/],
    ["a list", strToU8("[1]"), /not a handover/],
    ["entries of nothing", strToU8('{"entries":[null]}'), /not a handover/],
    ["of a later format", strToU8('{"format":"ravik.bundle/4"}'), /does not know/],
    ["20,000 levels", strToU8("[".repeat(20_000) + "]".repeat(20_000)), /not (JSON|a handover)/],
  ])("gets words when it is %s", (_, bytes, words) => {
    expect(findFault(bytes)).toMatch(words);
  });

  it("gets words when it says it is a record and holds nothing of one", () => {
    for (const format of ["ravik.bundle/1", "ravik.bundle/2"])
      expect(findSays(strToU8(JSON.stringify({ format, handover: { entries: [null] } }))).isIntact).toBe(false);
    const deep = `{"format":"ravik.bundle/2","handover":${"[".repeat(20_000)}${"]".repeat(20_000)}}`;
    expect(findSays(strToU8(deep)).isIntact).toBe(false);
  });
});
