import { createHash } from "node:crypto";
import fc from "fast-check";
import { expect, it } from "vitest";
import { hashBytes, hashText, sha256Schema } from "./index.ts";

it("is the SHA-256 that every other program finds", () => {
  expect(hashText("")).toBe("e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855");
  fc.assert(
    fc.property(fc.string({ unit: "grapheme" }), fc.uint8Array({ maxLength: 300 }), (text, bytes) => {
      expect(hashText(text)).toBe(createHash("sha256").update(text, "utf8").digest("hex"));
      expect(hashBytes(bytes)).toBe(createHash("sha256").update(bytes).digest("hex"));
      expect(sha256Schema.safeParse(hashText(text)).success).toBe(true);
    }),
    { seed: 3 },
  );
});
