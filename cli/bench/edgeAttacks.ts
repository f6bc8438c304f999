import sharp from "sharp";
import { hashBytes } from "../../core/hash/index.ts";
import { createPhotoId } from "../../core/walk/index.ts";

/** What somebody may do to a server to stop it; each until it is told to end. Run apart, so that it slows no clock here. */
const [name, address, cookie, token] = process.argv.slice(2) as [string, string, string, string];
const headers = { origin: address, cookie, "content-type": "application/json" };
const ask = (path: string, init: RequestInit = {}) =>
  fetch(address + path, { ...init, headers: { ...headers, ...init.headers } })
    .then(async (answer) => {
      await answer.arrayBuffer();
      return answer.status;
    })
    .catch(() => 0);

const large = JSON.stringify({ text: "[".repeat(18_000_000) });
const attacks: Record<string, () => Promise<unknown>> = {
  /** Ten bodies of 18 MB at once, by somebody who may send them. */
  bodies: () => all(10, () => ask("/api/verify", { method: "POST", body: large })),
  /** And by somebody who is nobody. */
  strangers: () => all(10, () => ask("/api/verify", { method: "POST", body: large, headers: { cookie: "" } })),
  /** Twenty packs by one link. */
  packs: () => all(20, () => ask(`/api/owner/${token}/pack.pdf?layout=two-up`)),
  /** Two hundred sign-ins with a wrong password, each under another name. */
  signIns: () =>
    all(200, (i) =>
      ask("/api/sign-in", { method: "POST", body: JSON.stringify({ login: `guess${i}`, password: "a wrong one" }) }),
    ),
  /** Pictures that are small and unpack to a hundred megapixels. */
  bombs: async () => {
    const bytes = await bomb;
    const photo = createPhotoId(hashBytes(bytes), "staff");
    return all(20, () =>
      ask(`/api/photos/${photo}`, { method: "PUT", body: bytes as BodyInit, headers: { "content-type": "image/png" } }),
    );
  },
  /** Live streams by the hundred. */
  streams: () => all(300, () => ask("/api/deliveries/d-w118/news", { signal: AbortSignal.timeout(4000) })),
};
const bomb = sharp({ create: { width: 11_000, height: 11_000, channels: 3, background: "#123456" } })
  .png({ compressionLevel: 9 })
  .toBuffer();
const all = (n: number, go: (i: number) => Promise<unknown>) => Promise.all(Array.from({ length: n }, (_, i) => go(i)));

if (name === "bombs") await bomb;
process.send?.("ready");
for (;;) await attacks[name]!();
