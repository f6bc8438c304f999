import { readFileSync, writeFileSync } from "node:fs";
import sharp from "sharp";
import { rigTemplates } from "../content/index.ts";
import { printDeck } from "../server/pdf/ink.ts";

/** `npm run icons`: the app's icons for home screens, drawn anew from web/public/ravik.svg; and the boat of the sign-in, from core. */
const folder = new URL("../web/public/", import.meta.url);
const sign = readFileSync(new URL("ravik.svg", folder), "utf8");
// Phones cut a maskable icon to a shape of their own: its sign stands within the inner four fifths, its ground reaches the edge.
const maskable = sign
  .replace('viewBox="0 0 32 32"', 'viewBox="-5 -5 42 42"')
  .replace('<rect width="32" height="32" rx="6"', '<rect x="-5" y="-5" width="42" height="42"');
const draw = (svg: string, px: number, name: string) =>
  sharp(Buffer.from(svg), { density: (72 * px) / 32 })
    .resize(px)
    .png({ compressionLevel: 9, palette: true })
    .toFile(new URL(name, folder).pathname);

await draw(sign, 192, "ravik-192.png");
await draw(sign, 512, "ravik-512.png");
await draw(maskable, 512, "ravik-maskable-512.png");

const afloat = { ...rigTemplates["wending-23"], trailer: null };
const drawing = printDeck(afloat, []).replace(/(<svg[^>]*>)/, "$1<title>A boat from above</title>");
writeFileSync(new URL("boat.svg", folder), `${drawing}\n`);
