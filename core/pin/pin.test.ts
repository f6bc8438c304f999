import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { isSignedWith } from "../signature/index.ts";
import type { Entry } from "../walk/index.ts";
import { derivePinKey, describeEntry, describePost, isSent, signOpening, signSent, writeOpening } from "./index.ts";

const salt = "5a".repeat(16);
const nessa = derivePinKey("2580", salt);
const entry: Entry = {
  id: "01KTRZMY4CW96ZTRMHDREX91QV",
  delivery: "d-1",
  at: "2026-06-01T10:00:00.000Z",
  by: "nessa",
  device: "dock",
  kind: "mark",
  topic: "horn",
  mark: "told",
  person: null,
  spentS: 3,
};

describe("a PIN", () => {
  it("makes the same key of the same salt, another of any other", () => {
    expect(derivePinKey("2580", salt)).toEqual(nessa);
    const others = [derivePinKey("2581", salt), derivePinKey("02580", salt), derivePinKey("2580", "5b".repeat(16))];
    expect(new Set([nessa, ...others].map(({ publicKey }) => publicKey)).size).toBe(4);
    expect(nessa.publicKey).toMatch(/^[0-9a-f]{64}$/);
  });

  it("opens by the challenge it signed, and by nothing it signed for something else", () => {
    const challenge = "1780000000000-ab";
    expect(isSignedWith(nessa.publicKey, writeOpening(challenge), signOpening(nessa.seed, challenge))).toBe(true);
    expect(isSignedWith(nessa.publicKey, writeOpening(challenge), signSent(nessa.seed, challenge))).toBe(false);
    expect(isSent(nessa.publicKey, challenge, signOpening(nessa.seed, challenge))).toBe(false);
  });

  it("answers for an entry whatever time it was put right to, and for no other word of it", () => {
    const proof = signSent(nessa.seed, describeEntry(entry));
    const later: Entry = { ...entry, at: "2026-06-01T11:00:00.000Z", clockMs: 3_600_000 };
    expect(isSent(nessa.publicKey, describeEntry(later), proof)).toBe(true);
    fc.assert(
      fc.property(fc.constantFrom("id", "delivery", "by", "device", "topic", "mark"), fc.string(), (field, value) => {
        const changed = { ...entry, [field]: value } as Entry;
        fc.pre((entry as unknown as Record<string, unknown>)[field] !== value);
        expect(isSent(nessa.publicKey, describeEntry(changed), proof)).toBe(false);
      }),
      { numRuns: 40 },
    );
  });

  it("answers for a post by its name, place and words, but for the clock it was sent by", () => {
    const said = describePost("addReading", { boat: "w097" }, { hours: 12, deviceMs: 1 });
    expect(describePost("addReading", { boat: "w097" }, { deviceMs: 9, hours: 12 })).toBe(said);
    const others = [
      describePost("addFill", { boat: "w097" }, { hours: 12 }),
      describePost("addReading", { boat: "w098" }, { hours: 12 }),
      describePost("addReading", { boat: "w097" }, { hours: 13 }),
    ];
    expect(others).not.toContain(said);
  });
});
