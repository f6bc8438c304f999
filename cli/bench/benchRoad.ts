import { gearPacks, rigTemplates, towRules } from "../../content/index.ts";
import { drawRamp, type RampInput, ramp } from "../../core/ramp/index.ts";
import { createRandom } from "../../core/random.ts";
import { askTow, usualLoad } from "../../core/tow/index.ts";
import { judgeTrip, readGpx, type TripPlan } from "../../core/trip/index.ts";
import { type Figure, figureMs } from "./figures.ts";

const time = (work: () => unknown) => {
  const startMs = performance.now();
  work();
  return performance.now() - startMs;
};
const repeat = (runs: number, work: (i: number) => unknown) =>
  Array.from({ length: runs }, (_, i) => time(() => work(i)));

/** Road, ramp and first trip: what a slider moves, and a route file of a whole summer. */
export async function benchRoad(): Promise<Figure[]> {
  const rig = rigTemplates["wending-23"];
  const car = { name: "Car", kg: 2400, towLimitKg: 3500, ballMm: 58.7375, pins: 7 };
  const tracks = Array.from({ length: 3 }, (_, seed) => createTrack(200_000, seed + 1));
  return [
    figureMs(
      "GPX of 200,000 points read into legs",
      repeat(6, (i) => readGpx(tracks[i % tracks.length]!)),
      1000,
      "compute",
    ),
    figureMs(
      "ramp, answered and drawn, for one step of the slider",
      repeat(400, (i) => {
        const ask = { ...rampAsk, gradePct: 5 + (i % 60) / 2 };
        ramp(ask);
        drawRamp({ ask, waterM: 0, loaM: rig.loaM, axles: 2 });
      }),
      4,
      "compute",
    ),
    figureMs(
      "tow check, all limits, for one step of the slider",
      repeat(400, (i) => askTow(rig, car, { ...usualLoad(rig), gearKg: i }, towRules[0]!)),
      4,
      "compute",
    ),
    figureMs(
      "a day out judged: fuel, wind, sun, gear",
      repeat(200, (i) => judgeTrip({ ...trip, fuelL: 200 + i }, rig, gearPacks[0]!, trip.date, "America/Chicago")),
      8,
      "compute",
    ),
  ];
}

const rampAsk: RampInput = {
  gradePct: 13,
  trailer: { hitchToTransomM: 8.4, bunkHeightM: 0.6, fenderFromTransomM: 2.2, fenderHeightM: 0.88 },
  boat: { sternDraftM: 0.5 },
  vehicle: { hitchToRearAxleM: 1.1, wadeLimitM: 0.3 },
};

const trip: TripPlan = {
  name: "Round the island",
  date: "2026-06-13",
  departAt: "10:00",
  from: { lat: 45.2, lon: -93.4 },
  legs: Array.from({ length: 20 }, (_, i) => ({ to: `Turn ${i + 1}`, nm: 0.8 })),
  cruiseKn: 20,
  burnLph: 60,
  fuelL: 300,
  stayH: 2,
  wind: Array.from({ length: 20 }, (_, i) => ({ at: `${String(i + 5).padStart(2, "0")}:00`, kn: 5 + (i % 7) })),
  windSource: "typed",
  windOn: "2026-06-13",
  windLimitKn: 15,
  anchor: { depthM: 4, tideRiseM: 0, bowHeightM: 1, scope: 7 },
  people: [{ name: "Ada Lunt", isChild: false }],
  gearPack: "neutral",
  offshoreNm: 0,
  aboard: [],
  ashore: null,
};

function createTrack(points: number, seed: number): string {
  const random = createRandom(seed);
  let [lat, lon, turn] = [45, -93, 0];
  const rows = Array.from({ length: points }, () => {
    turn += (random() - 0.5) * 0.2;
    lat += Math.sin(turn) * 1e-5;
    lon += Math.cos(turn) * 1e-5;
    return `<trkpt lat="${lat.toFixed(7)}" lon="${lon.toFixed(7)}"><ele>0</ele><time>2026-06-13T10:00:00Z</time></trkpt>`;
  });
  return `<?xml version="1.0"?><gpx version="1.1"><trk><trkseg>${rows.join("\n")}</trkseg></trk></gpx>`;
}
