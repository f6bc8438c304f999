import { createHash } from "node:crypto";
import sharp, { type Sharp } from "sharp";
import { Failure } from "./failure.ts";

export interface Photo {
  readonly width: number;
  readonly height: number;
  /** Of the large version's bytes. */
  readonly sha256: string;
  /** At most 2,000 px a side, JPEG, upright, without any metadata. */
  readonly large: Buffer;
  /** At most 360 px a side, for lists. */
  readonly small: Buffer;
}

/** Pixels are counted before any is decoded. A JPEG is read smaller at once; the others unpack whole, from next to nothing. */
export const photoLimits = {
  mostBytes: 20_000_000,
  mostPx: 12_000,
  mostPixels: { jpeg: 120_000_000, png: 30_000_000, webp: 30_000_000 },
} as const;
const largePx = 2000;
const smallPx = 360;
const quality = 80;
const kinds = ["jpeg", "png", "webp"] as const;

/**
 * A photo made fit to keep: told by its content, not its name; turned upright as the camera noted; metadata with place and
 * time left out; smaller versions made. Failures: `not-a-photo`, `too-large` by pixels.
 */
export async function readPhoto(bytes: Buffer): Promise<Photo> {
  const { mostPx, mostPixels } = photoLimits;
  const image = () => sharp(bytes, { limitInputPixels: mostPixels.jpeg, failOn: "error" });
  const found =
    bytes.length === 0
      ? null
      : await image()
          .metadata()
          .catch(() => null);
  const kind = kinds.find((each) => each === found?.format);
  if (found === null || kind === undefined) throw new Failure("not-a-photo");
  if (found.width * found.height > mostPixels[kind])
    throw new Failure("too-large", { limit: `${mostPixels[kind] / 1_000_000} million pixels` });
  if (Math.max(found.width, found.height) > mostPx) throw new Failure("too-large", { limit: "12,000 pixels a side" });
  const shrink = (picture: Sharp, px: number) =>
    picture
      .resize({ width: px, height: px, fit: "inside", withoutEnlargement: true })
      .flatten({ background: "#ffffff" })
      .jpeg({ quality })
      .toBuffer({ resolveWithObject: true });
  try {
    const large = await shrink(image().autoOrient(), largePx);
    // From the large one: a photo of twenty megapixels is read once.
    const small = await shrink(sharp(large.data), smallPx);
    return {
      width: large.info.width,
      height: large.info.height,
      sha256: createHash("sha256").update(large.data).digest("hex"),
      large: large.data,
      small: small.data,
    };
  } catch {
    throw new Failure("not-a-photo");
  }
}
