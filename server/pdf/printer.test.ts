import { describe, expect, it } from "vitest";
import { write, writeAll } from "./printer.ts";

describe("text on paper", () => {
  it("has a zero without a slash, which the text face does not draw", () => {
    expect(write("10:05 am, 2026", { bold: true })).toEqual(
      [
        ["1", "Atkinson"],
        ["0", "Archivo"],
        [":", "Atkinson"],
        ["0", "Archivo"],
        ["5 am, 2", "Atkinson"],
        ["0", "Archivo"],
        ["26", "Atkinson"],
      ].map(([text, font]) => ({ text, font, bold: true })),
    );
  });

  it("has it in what a table or the foot of a page says by itself too, with the style that stood there", () => {
    const content = { table: { body: [["", { text: "2", bold: true, alignment: "right" }]] } };
    const footer = (page: number) => ({ columns: [{ text: `page ${page}`, fontSize: 7 }] });
    const written = writeAll({ content, footer });
    expect(written.content.table.body[0]![1]).toEqual({
      ...{ bold: true, alignment: "right" },
      text: [{ text: "2", font: "Atkinson", bold: true }],
    });
    expect(JSON.stringify(written.footer(10))).toContain('{"fontSize":7,"text":"0","font":"Archivo"}');
  });

  it("has it in plain words between other runs too", () => {
    const node = { text: ["10 of ", { text: "20", color: "red" }, ...write("0")], fontSize: 8 };
    type Run = { text: string; font: string; fontSize?: number };
    const { text } = writeAll(node) as unknown as { text: (Run | { text: Run[] })[] };
    const runs = text.flatMap((each) => (typeof each.text === "string" ? [each as Run] : each.text));
    expect(runs.map(({ text: said, font }) => [said, font])).toEqual([
      ...[
        ["1", "Atkinson"],
        ["0", "Archivo"],
        [" of ", "Atkinson"],
      ],
      ...[
        ["2", "Atkinson"],
        ["0", "Archivo"],
        ["0", "Archivo"],
      ],
    ]);
    expect(runs[0]!.fontSize).toBe(8);
  });

  it("is in one run where one face draws all of it", () => {
    expect(write("2000", { font: "Archivo" })).toEqual([{ text: "2000", font: "Archivo" }]);
    expect(write("Ålesund ß").map(({ font }) => font)).toEqual(["Atkinson"]);
  });
});
