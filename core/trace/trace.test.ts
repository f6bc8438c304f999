import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { createTell, sayTold } from "../language/index.ts";
import { createRandom } from "../random.ts";
import {
  checksumOf,
  createCsvRun,
  createNmeaRun,
  findDelimiter,
  guessRunColumns,
  readNumber,
  readTime,
  type TraceFault,
} from "./index.ts";

const readCsv = (text: string) => {
  const [head = "", ...lines] = text.split("\n");
  const headings = head.split(";");
  const run = createCsvRun(headings, guessRunColumns(headings)!);
  lines.forEach((line, i) => {
    run.push(line.split(";"), i + 2);
  });
  return { run: run.finish(), faults: run.collector.faults };
};
const sentence = (body: string) => `$${body}*${checksumOf(body)}`;
const readNmea = (lines: readonly string[]) => {
  const run = createNmeaRun();
  lines.forEach((line, i) => {
    run.push(line, i + 1);
  });
  return { run: run.finish(), faults: run.collector.faults };
};

const read = (fault: TraceFault) => ({ ...fault, message: sayTold(fault.message, createTell(null)) });

describe("a run as CSV", () => {
  it("finds its columns by their headings, in any order, one engine or two", () => {
    expect(guessRunColumns(["Engine 1 RPM", "Time (s)", "Coolant °C"])).toEqual({
      time: 1,
      rpm: [0],
      temperatures: [2],
    });
    expect(guessRunColumns(["timestamp", "port rpm", "stbd rpm"])).toEqual({ time: 0, rpm: [1, 2], temperatures: [] });
    expect(guessRunColumns(["a", "b"])).toBeNull();
    expect(guessRunColumns(["time", "speed over ground"])).toBeNull();
  });

  it("reads seconds, clocks and days, past midnight, and says when it began", () => {
    const { run, faults } = readCsv("time;rpm\n23:59:58;700\n23:59:59;710\n00:00:01;720");
    expect(faults).toEqual([]);
    expect(run).toMatchObject({ startMin: 1439, date: null });
    expect(run.engines[0]!.samples).toEqual([
      [0, 700],
      [1, 710],
      [3, 720],
    ]);
    const dated = readCsv("time;rpm\n2026-02-28T23:59:59;700\n2026-03-01T00:00:00;900").run;
    expect(dated).toMatchObject({
      date: "2026-02-28",
      engines: [
        {
          samples: [
            [0, 700],
            [1, 900],
          ],
        },
      ],
    });
  });

  it("takes coolant along, one in ten seconds, by the engine it belongs to, in °C", () => {
    const lines = Array.from({ length: 31 }, (_, s) => `${s};700;800;${20 + s};${68 + 1.8 * s};15`).join("\n");
    const { run, faults } = readCsv(`time;port rpm;stbd rpm;port coolant;stbd temp °F;sea temp\n${lines}`);
    expect(faults).toEqual([]);
    expect(run.engines.map(({ temperatures }) => temperatures)).toEqual([
      [
        [0, 20],
        [10, 30],
        [20, 40],
        [30, 50],
      ],
      [
        [0, 20],
        [10, 30],
        [20, 40],
        [30, 50],
      ],
    ]);
    expect(readCsv("time;rpm;coolant\n0;700;\n1;700;20").run.engines[0]!.temperatures).toEqual([[1, 20]]);
  });

  it.each([
    ["a word", "warm", "“warm” is not a temperature"],
    ["a slipped column", "700", "700 °C is no coolant temperature"],
  ])("is refused with line and column for %s as coolant", (_, cell, message) => {
    const { faults } = readCsv(`time;rpm;coolant\n0;700;${cell}`);
    expect(faults.map(read)).toEqual([{ line: 2, column: "coolant", message }]);
  });

  it("comes down to a sample a second, however fast it was recorded", () => {
    const lines = Array.from({ length: 100 }, (_, i) => `${i / 10};${1000 + i}`).join("\n");
    expect(readCsv(`time;rpm\n${lines}`).run.engines[0]!.samples).toHaveLength(10);
  });

  it.each([
    ["time that goes back", "0;700\n2;700\n1;700", 4, "rpm", "time goes back"],
    ["negative rpm", "0;700\n1;-1", 3, "rpm", "must not be negative"],
    ["absurd rpm", "0;65535", 2, "rpm", "more than any engine"],
    ["a word for rpm", "0;700\n1;n/a", 3, "rpm", "is not an engine speed"],
    ["a word for time", "soon;700", 2, "time", "is not a time"],
    ["half a line", "0;700\n1", 3, null, "cut off"],
    ["61 minutes past", "10:61:00;700", 2, "time", "is not a time"],
  ])("is refused with line and column for %s", (_, body, line, column, message) => {
    const { faults } = readCsv(`time;rpm\n${body}`);
    expect(faults).toHaveLength(1);
    expect(faults[0]).toMatchObject({ line, column });
    expect(read(faults[0]!).message).toContain(message);
  });

  it("names no more faults than one reads", () => {
    const { faults } = readCsv(`time;rpm\n${Array.from({ length: 500 }, () => "x;y").join("\n")}`);
    expect(faults.length).toBe(20);
  });
});

it.each([
  ["time;rpm,port;temp", ";"],
  ["time\trpm", "\t"],
  ['"time, s",rpm,temp', ","],
  ["time|rpm", "|"],
  ["rpm", ";"],
])("the cells of %j are parted by %j", (heading, mark) => {
  expect(findDelimiter(heading)).toBe(mark);
});

describe("readNumber", () => {
  it.each([
    ["3200", 3200],
    ["3200,5", 3200.5],
    ["3.200,5", 3200.5],
    ["3,200.5", 3200.5],
    ["3,200", 3200],
    [" 700 ", 700],
    ["1 200", 1200],
    ["", null],
    ["12h", null],
    ["--", null],
  ])("%j is %s", (text, value) => {
    expect(readNumber(text)).toBe(value);
  });

  it("reads back whatever it is given with a point or a comma", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 99_999 }), fc.integer({ min: 1, max: 9 }), (whole, tenth) => {
        expect(readNumber(`${whole}.${tenth}`)).toBeCloseTo(whole + tenth / 10, 9);
        expect(readNumber(`${whole},${tenth}`)).toBeCloseTo(whole + tenth / 10, 9);
      }),
      { seed: 2 },
    );
  });

  it("leaves times alone that are none", () => {
    expect(readTime("12:30:05.5")).toMatchObject({ s: 45_005.5, isClock: true });
    expect(readTime("later")).toBeNull();
    expect(readTime("2026-02-30T12:00:00")).toBeNull();
  });

  it("takes times in UTC for what they are, and leaves the others as the device wrote them", () => {
    const began = (text: string) => {
      const run = createCsvRun(["time", "rpm"], guessRunColumns(["time", "rpm"])!);
      run.push([text, "800"], 2);
      const { startsAt, date, startMin } = run.finish();
      return [startsAt, date, startMin];
    };
    expect(began("2026-06-15T01:30:00Z")).toEqual(["2026-06-15T01:30:00.000Z", null, null]);
    expect(began("2026-06-14 20:30:00-05:00")).toEqual(["2026-06-15T01:30:00.000Z", null, null]);
    expect(began("2026-06-14 20:30:00")).toEqual([null, "2026-06-14", 1230]);
    expect(began("20:30:00")).toEqual([null, null, 1230]);
    expect(began("12.5")).toEqual([null, null, null]);
  });
});

describe("a run as NMEA 0183", () => {
  const atSecond = (s: number) => sentence(`GPZDA,1230${String(s).padStart(2, "0")}.00,14,06,2026,00,00`);

  it("reads engine speed of each engine with the time of the sentences between, and passes over others", () => {
    const { run, faults } = readNmea([
      sentence("GPGSV,1,1,00"),
      atSecond(0),
      sentence("IIRPM,E,1,700,,A"),
      sentence("IIRPM,E,2,710,,A"),
      sentence("IIRPM,S,1,9000,,A"),
      atSecond(1),
      sentence("IIRPM,E,1,720,,A"),
      sentence("IIRPM,E,2,99999,,V"),
    ]);
    expect(faults).toEqual([]);
    expect(run).toMatchObject({ startsAt: "2026-06-14T12:30:00.000Z", date: null });
    expect(run.engines).toMatchObject([
      {
        label: "Engine 1",
        samples: [
          [0, 700],
          [1, 720],
        ],
      },
      { label: "Engine 2", samples: [[0, 710]] },
    ]);
  });

  it("takes the time from a TAG block too", () => {
    const tagged = (unix: number, rpm: number) => `\\c:${unix}*5A\\${sentence(`IIRPM,E,0,${rpm},,A`)}`;
    const { run } = readNmea([tagged(1_781_430_000, 700), tagged(1_781_430_002, 800)]);
    expect(run.startsAt).toBe("2026-06-14T09:40:00.000Z");
    expect(run.engines[0]!.samples).toEqual([
      [0, 700],
      [2, 800],
    ]);
  });

  it.each([
    ["a wrong checksum", [atSecond(0), "$IIRPM,E,1,700,,A*00"], "checksum", "does not fit"],
    ["speed before any time", [sentence("IIRPM,E,1,700,,A")], null, "no time yet"],
    ["an engine that is no number", [atSecond(0), sentence("IIRPM,E,x,700,,A")], "engine", "not an engine's number"],
    ["speed that is none", [atSecond(0), sentence("IIRPM,E,1,,,A")], "rpm", "not an engine speed"],
    ["half a sentence", [atSecond(0), "IIRPM,E"], null, "not an NMEA 0183 sentence"],
  ])("is refused with its line for %s", (_, lines, column, message) => {
    const { faults } = readNmea(lines);
    expect(faults[0]).toMatchObject({ line: lines.length, column });
    expect(read(faults[0]!).message).toContain(message);
  });

  it("never throws, whatever it is fed", () => {
    const random = createRandom(3);
    for (let i = 0; i < 300; i++) {
      const junk = Array.from({ length: 20 }, () => String.fromCharCode(32 + Math.floor(random() * 200))).join("");
      expect(() => readNmea([junk, `$${junk}*00`, sentence(`IIRPM,${junk.replaceAll("*", "")}`)])).not.toThrow();
    }
  });
});
