import { describe, expect, it } from "vitest";
import { gearPacks, rigTemplates } from "../../content/index.ts";
import type { LocalDate } from "../dates/index.ts";
import { regions } from "../region/index.ts";
import {
  judgeTrip,
  readWind,
  sayClock,
  sayReason,
  type TripPlan,
  tripPlanSchema,
  writeAshoreMessage,
} from "./index.ts";

const rig = rigTemplates["wending-23"];
const pack = gearPacks[0]!;
const today: LocalDate = "2026-06-13";
const zone = "America/Chicago";
const idiom = { ...regions.us, clock: "24" } as const;
const calm = Array.from({ length: 20 }, (_, i) => ({ at: `${String(i + 5).padStart(2, "0")}:00`, kn: 6 }));
const stowed = ["jackets-adult", "jackets-child", "throwable", "extinguisher", "whistle", "first-aid", "anchor-set"];
const plan: TripPlan = tripPlanSchema.parse({
  name: "To the island",
  date: today,
  departAt: "10:00",
  from: { lat: 45.2, lon: -93.4 },
  legs: [
    { to: "Point", nm: 6 },
    { to: "Island", nm: 4 },
  ],
  cruiseKn: 20,
  burnLph: 60,
  fuelL: 300,
  stayH: 2,
  wind: calm,
  windSource: "typed",
  windOn: today,
  windLimitKn: 15,
  anchor: { depthM: 4, tideRiseM: 0, bowHeightM: 1, scope: 7 },
  people: [
    { name: "Ada Lunt", isChild: false },
    { name: "Bo Lunt", isChild: true, kg: 22 },
  ],
  gearPack: "neutral",
  offshoreNm: 0,
  aboard: [...stowed, "papers", "paddle", "lines"].map((item) => ({ item, qty: 6 })),
  ashore: { name: "Cy Lunt", phone: "555 0100" },
});
const judge = (change: Partial<TripPlan> = {}, on: LocalDate = today) =>
  judgeTrip({ ...plan, ...change }, rig, pack, on, zone);
const codes = (change: Partial<TripPlan> = {}, on: LocalDate = today) =>
  judge(change, on).reasons.map(({ code }) => code);

describe("go or no go", () => {
  it("is a go when fuel, wind, daylight, gear and people are known and right", () => {
    expect(judge()).toMatchObject({ verdict: "go", reasons: [], backMin: 13 * 60 });
    expect(judge().fuel).toEqual({ outL: 30, backL: 30, leftL: 240 });
    expect(judge().answer.rodeM).toBe(35);
  });

  it("is never a go without wind for the whole time out", () => {
    for (const wind of [[], calm.slice(0, 6), calm.slice(8)]) {
      expect(judge({ wind }).verdict).toBe("not-checked");
      expect(codes({ wind })).toContain("wind-unchecked");
    }
  });

  it("asks for the wind again on the morning, and only minds it the day before", () => {
    const yesterday: LocalDate = "2026-06-12";
    const old = { windOn: yesterday };
    expect(judge(old)).toMatchObject({ verdict: "not-checked", reasons: [{ code: "wind-old" }] });
    expect(judge(old, yesterday)).toMatchObject({ verdict: "go", reasons: [{ code: "wind-old", weight: "mind" }] });
  });

  it("stops for wind before home, for fuel, for gear that is missing or out of date, for more fuel than the tank", () => {
    const rising = { wind: [...calm.slice(0, 6), { at: "13:00", kn: 20 }, { at: "18:00", kn: 20 }] };
    expect(judge(rising).verdict).toBe("no-go");
    const said = sayReason("wind", judge(rising), { ...plan, ...rising }, pack, idiom);
    expect(said).toMatch(/reaches 15 kn at 1[12]:\d\d.*Turn back by 1[01]:\d\d/);
    expect(codes({ fuelL: 95 })).toContain("fuel");
    expect(codes({ fuelL: 5000 })).toContain("fuel-over-tank");
    const aboard = plan.aboard.map((each) =>
      each.item === "extinguisher" ? { ...each, expires: "2026-01-01" as const } : each,
    );
    expect(codes({ aboard })).toContain("gear");
    expect(sayReason("gear", judge({ aboard }), plan, pack, idiom)).toBe(
      "Safety gear: fire extinguisher (1 missing, 6 out of date).",
    );
  });

  it("knows the dark: a late return asks for a torch and says when the sun sets; above the polar circle it may do neither", () => {
    const late = judge({ departAt: "19:30" });
    expect(late.reasons.map(({ code }) => code)).toEqual(expect.arrayContaining(["dark", "gear"]));
    expect(late.sunsetMin).toBe(21 * 60 + 2);
    expect(judge({ from: { lat: 70, lon: 20 } })).toMatchObject({ sun: { kind: "always-up" }, sunsetMin: null });
    expect(codes({ from: { lat: 70, lon: 20 } })).not.toContain("dark");
    expect(codes({ from: { lat: -70, lon: 20 } })).toContain("dark");
    expect(codes({ from: null })).toEqual(["sun-unknown"]);
  });

  it("goes on past midnight", () => {
    const long = { departAt: "22:30", stayH: 4 };
    expect(sayClock(judge(long).backMin, regions.metric)).toBe("03:30 the next day");
    expect(codes(long)).toContain("wind-unchecked");
  });

  it("asks where to, who is aboard and who waits, before it says anything", () => {
    const empty = { legs: [], people: [], ashore: null };
    expect(codes(empty)).toEqual(expect.arrayContaining(["no-legs", "nobody-aboard", "nobody-ashore"]));
    expect(judge({ legs: [] }).verdict).toBe("not-checked");
  });

  it("has a sentence for every reason, and a message that says when to ring", () => {
    const all = judge({ legs: [], wind: [], aboard: [], people: [], from: null, ashore: null, fuelL: 5000 });
    expect(all.reasons.length).toBeGreaterThan(5);
    for (const { code } of all.reasons) expect(sayReason(code, all, plan, pack, idiom)).toMatch(/^[A-Z].{12,}[.]$/);
    const boat = { boatName: "Wending 23", hull: "SLW23001A626", day: "Sat Jun 13" };
    const message = writeAshoreMessage(plan, judge(), boat, regions.metric);
    for (const part of ["Ada Lunt and Bo Lunt", "SLW23001A626", "Back at 13:00", "by 14:00", "marine rescue"])
      expect(message).toContain(part);
  });
});

describe("readWind", () => {
  const read = (text: string) => {
    const answer = readWind(text);
    return answer.ok ? answer.value : answer.error;
  };
  it("reads rows as they are written by hand and by programs, with a head or without", () => {
    const wanted = [
      { at: "09:00", kn: 6 },
      { at: "12:30", kn: 11.5, fromDeg: 240 },
    ];
    expect(read("9  6\n12:30 11.5 240")).toEqual(wanted);
    expect(read("time,kn,from\n09:00,6,\n12:30,11.5,240\n")).toEqual(wanted);
    expect(read("09:00;6\r\n12:30;11,5;240")).toEqual(wanted);
    expect(read('"09:00"\t6 kn\n1230\t11.5\t240')).toEqual(wanted);
  });
  it("goes on past midnight, and says in which line something is wrong", () => {
    expect(read("22:00 5\n01:00 9")).toEqual([
      { at: "22:00", kn: 5 },
      { at: "25:00", kn: 9 },
    ]);
    expect(read("")).toEqual({ code: "no-rows" });
    expect(read("09:00 6\nten 7")).toEqual({ code: "bad-row", line: 2, got: "ten 7" });
    expect(read("09:00 6\n10:00 900")).toMatchObject({ code: "bad-row", line: 2 });
    expect(read("09:00 6\n10:00")).toMatchObject({ code: "bad-row", line: 2 });
    expect(read("09:00 6\n09:00 7")).toMatchObject({ code: "not-later", line: 2 });
  });
});
