import Papa from "papaparse";
import { describe, expect, it } from "vitest";
import { writeCalendar } from "./calendar.ts";
import { writeCsv } from "./csv.ts";

describe("a table for a spreadsheet", () => {
  it.each(["=1+1", "+1", "-2", "@x", "\tx", "=HYPERLINK(1)\nsecond line", '=A1\r\n"quoted"'])(
    "has no cell that it would work out: %j",
    (note) => {
      const text = writeCsv([{ note, boat: "Wending 23" }]);
      const [, row] = Papa.parse<string[]>(text).data;
      expect(row).toEqual([`'${note}`, "Wending 23"]);
    },
  );

  it.each([
    ["＝1+1", "'＝1+1"],
    ["＋1", "'＋1"],
    ["＠x", "'＠x"],
    ["  =1+1", "'  =1+1"],
    ["calm\n=1+1", "calm\n'=1+1"],
    ["calm\r\n\u3000－2\nend", "calm\r\n'\u3000－2\nend"],
    ["\rx", "'\rx"],
  ])("has none that begins so in full width, after blanks or after a line's end: %j", (note, kept) => {
    const [, row] = Papa.parse<string[]>(writeCsv([{ note, boat: "Wending 23" }])).data;
    expect(row).toEqual([kept, "Wending 23"]);
  });

  it("keeps numbers as numbers, also below zero", () => {
    expect(writeCsv([{ celsius: -4, none: null }])).toBe("celsius,none\r\n-4,");
  });

  it("keeps all else as it is", () => {
    const notes = ["a,b", 'say "hello"', "two\nlines", "5-1", "ünïcode"];
    const { data } = Papa.parse<{ note: string }>(writeCsv(notes.map((note) => ({ note }))), { header: true });
    expect(data.map(({ note }) => note)).toEqual(notes);
  });
});

describe("a calendar", () => {
  it("writes a whole day as from one date to the next, also over a change of year and of clocks", () => {
    const of = (day: string) =>
      writeCalendar("Yard", [{ uid: "u1", sequence: 7, title: "Service", says: "", when: { day: day as never } }], 0);
    expect(of("2026-12-31")).toMatch(/DTSTART;VALUE=DATE:20261231\r\n(.*\r\n)*?DTEND;VALUE=DATE:20270101/);
    expect(of("2026-03-08")).toMatch(/DTEND;VALUE=DATE:20260309/);
    expect(of("2026-03-08")).not.toContain("DURATION");
    expect(of("2026-03-08")).toContain("SEQUENCE:7");
  });

  it("has no line that a text broke, whatever its line ends", () => {
    const says = "one\rBEGIN:VALARM\r\nATTACH:x\ntwo";
    const text = writeCalendar(
      "Yard\rX",
      [{ uid: "u1", sequence: 0, title: `Service\rSUMMARY:x`, says, when: { day: "2026-12-01" as never } }],
      0,
    );
    const lines = text.split("\r\n").filter((line) => line !== "");
    for (const line of lines) {
      expect(line, "a bare CR or LF").not.toMatch(/[\r\n]/);
      expect(line.startsWith(" ") || /^[A-Z-]+[;:]/.test(line), line).toBe(true);
    }
    expect(lines.filter((line) => /^(BEGIN:VALARM|ATTACH|SUMMARY:x)/.test(line))).toEqual([]);
  });
});
