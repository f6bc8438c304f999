import type { TDocumentDefinitions } from "pdfmake/interfaces";
import QRCode from "qrcode";
import { ink, soft } from "../../server/pdf/ink.ts";
import { printPdf, write } from "../../server/pdf/printer.ts";
import { type Answers, addressOf } from "./answers.ts";
import { authorityPath } from "./plan.ts";

/** What every tablet has to do once, in its order; `code` is drawn beside. */
export function tellTablet(
  answers: Answers,
  fingerprint: string | null,
): { title: string; lines: string[]; code: string }[] {
  const address = addressOf(answers);
  const authority = `http://${answers.name}${authorityPath}`;
  const open = {
    title: "Open Ravik and keep it",
    code: address,
    lines: [
      "In the tablet's browser open this address, or scan it. Sign in once.",
      "In the browser's menu pick “Add to home screen” or “Install”. Start it from there from now on.",
      "Open a handover once, turn the network off, and open it again: it must still be there. Then turn the network on.",
      "When it first asks for the camera, allow it: photos and codes hang on it.",
    ],
  };
  if (answers.authority === "public") return [open];
  return [
    {
      title: "Trust the store's own authority, once",
      code: authority,
      lines: [
        "In the yard's own network open this address, or scan it. The tablet offers to install a certificate.",
        ...(fingerprint === null
          ? []
          : [`Before you agree, compare its SHA-256 fingerprint: ${inGroups(fingerprint)}`]),
        "Agree, then find it in the tablet's settings under certificates, and turn on full trust for it where the tablet asks for that.",
        "It vouches for this one name and for nothing else.",
      ],
    },
    open,
  ];
}

/** In groups of four bytes: it is compared by eye, and a line can break in it. */
const inGroups = (fingerprint: string) => fingerprint.replace(/((?:[0-9A-F]{2}:){4})/g, "$1 ");

/** One page to hang up beside the charger: what each tablet has to do once. */
export async function printTabletPage(answers: Answers, fingerprint: string | null): Promise<Buffer> {
  const parts = await Promise.all(
    tellTablet(answers, fingerprint).map(async ({ title, lines, code }, i) => ({
      columns: [
        { width: 150, svg: await QRCode.toString(code, { type: "svg", margin: 0 }), fit: [130, 130] },
        {
          width: "*",
          stack: [
            { text: write(`${i + 1}  ${title}`, { font: "Archivo", bold: true, fontSize: 15 }), margin: [0, 0, 0, 2] },
            { text: write(code, { bold: true, fontSize: 11.5 }), margin: [0, 0, 0, 6] },
            { ul: lines.map((line) => ({ text: write(line, { fontSize: 11.5 }), margin: [0, 0, 0, 4] })) },
          ],
        },
      ],
      margin: [0, 0, 0, 28],
    })),
  );
  const page: TDocumentDefinitions = {
    pageSize: "A4",
    pageMargins: [52, 56, 52, 48],
    info: { title: "Ravik: what each tablet has to do once" },
    tagged: true,
    displayTitle: true,
    language: "en",
    defaultStyle: { font: "Atkinson", fontSize: 11.5, lineHeight: 1.2, color: ink },
    content: [
      { text: write("What each tablet has to do once", { font: "Archivo", bold: true, fontSize: 24 }) },
      { text: write(addressOf(answers), { fontSize: 13, color: soft }), margin: [0, 2, 0, 26] },
      ...(parts as TDocumentDefinitions["content"][]),
    ] as TDocumentDefinitions["content"],
  };
  return printPdf(page);
}
