import sharp from "sharp";
import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { openTestStore, type TestStore } from "./openTestStore.ts";
import { photoLimits, readPhoto } from "./photos.ts";

let store: TestStore;
let cookie: string;
beforeAll(async () => {
  store = await openTestStore();
  const response = await fetch(`${store.address}/api/sign-in`, {
    method: "POST",
    headers: { origin: store.address, "content-type": "application/json" },
    body: JSON.stringify({ login: "tobin", password: "slack-water" }),
  });
  cookie = response.headers.get("set-cookie")!.split(";")[0]!;
});
afterAll(() => store.stop());

const plain = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: "#336699" } });
const send = async (body: Uint8Array, type = "image/jpeg", headers: Record<string, string> = {}, id = ulid()) => {
  const response = await fetch(`${store.address}/api/photos/${id.toLowerCase()}`, {
    method: "PUT",
    headers: { cookie, origin: store.address, "content-type": type, ...headers },
    body: body as BodyInit,
  });
  return { status: response.status, body: await response.json() };
};

describe("a photo", () => {
  it("is turned upright, made smaller and loses where it was taken", async () => {
    const taken = await plain(3000, 1000)
      .jpeg()
      .withExif({ IFD0: { Copyright: "somebody" }, IFD3: { GPSLatitude: "52/1 30/1 0/1", GPSLatitudeRef: "N" } })
      .withMetadata({ orientation: 6 })
      .toBuffer();
    expect((await sharp(taken).metadata()).orientation).toBe(6);
    const { body, status } = await send(taken);
    expect([status, body.width, body.height]).toEqual([200, 667, 2000]);
    for (const [size, px] of [
      ["large", 2000],
      ["small", 360],
    ] as const) {
      const answer = await fetch(`${store.address}/api/photos/${body.photo}?size=${size}`, { headers: { cookie } });
      expect(answer.headers.get("content-type")).toBe("image/jpeg");
      expect(answer.headers.get("cache-control")).toBe("no-store");
      const found = await sharp(Buffer.from(await answer.arrayBuffer())).metadata();
      expect(found).toMatchObject({ format: "jpeg", height: px });
      expect([found.exif, found.orientation, found.icc]).toEqual([undefined, undefined, undefined]);
    }
  });

  it("is told by its content, not by what it says it is", async () => {
    const png = await plain(40, 30).png().toBuffer();
    expect((await send(png, "image/jpeg")).status).toBe(200);
    const script = await send(new TextEncoder().encode("<svg onload=alert(1)>"), "image/png");
    expect([script.status, script.body.error.code]).toEqual([415, "not-a-photo"]);
    const svg = await send(new TextEncoder().encode('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>'));
    expect(svg.body.error.code).toBe("not-a-photo");
    const cut = (await plain(400, 300).jpeg().toBuffer()).subarray(0, 300);
    expect((await send(cut)).body.error.code).toBe("not-a-photo");
  });

  it("is refused when it is too large, by bytes or by pixels", async () => {
    const heavy = await send(new Uint8Array(photoLimits.mostBytes + 1));
    expect([heavy.status, heavy.body.error.code, heavy.body.error.limit]).toEqual([413, "too-large", "20 MB"]);
    const wide = await plain(photoLimits.mostPx + 1, 2)
      .png()
      .toBuffer();
    await expect(readPhoto(wide)).rejects.toMatchObject({
      code: "too-large",
      facts: { limit: "12,000 pixels a side" },
    });
  });

  it("comes from this address only, with a session, as a picture", async () => {
    const png = await plain(4, 4).png().toBuffer();
    expect((await send(png, "image/png", { origin: "http://elsewhere.example" })).body.error.code).toBe("wrong-origin");
    expect((await send(png, "image/png", { cookie: "" })).status).toBe(401);
    expect((await send(png, "text/plain")).body.error.code).toBe("not-json");
    const none = await fetch(`${store.address}/api/photos/none`, { headers: { cookie } });
    expect(none.status).toBe(404);
  });
});
