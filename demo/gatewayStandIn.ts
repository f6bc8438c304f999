import { dayOf } from "../core/dates/index.ts";
import { createRandom } from "../core/random.ts";
import { checksumOf } from "../core/trace/index.ts";
import type { Gateway } from "../server/gateway.ts";

type Leg = readonly [minutes: number, rpm: number];

interface Recording {
  readonly id: string;
  readonly title: string;
  readonly format: "csv" | "nmea";
  readonly engines: 1 | 2;
  readonly seed: number;
  readonly legs: readonly Leg[];
  /** Now and then it loses a minute. */
  readonly drops?: boolean;
}

const varied: readonly Leg[] = [
  [6, 1100],
  [4, 1800],
  [4, 2400],
  [3, 2900],
  [4, 2100],
  [4, 1500],
  [4, 2600],
  [3, 1900],
  [5, 1200],
  [3, 650],
];
const recordings: readonly Recording[] = [
  {
    id: "varied",
    title: "An hour, varied well",
    format: "csv",
    engines: 1,
    seed: 1,
    legs: [...varied, ...varied.slice(1)],
  },
  {
    id: "one-speed",
    title: "Cruising at one speed",
    format: "csv",
    engines: 1,
    seed: 2,
    legs: [
      [6, 1100],
      [5, 2000],
      [45, 2800],
      [4, 1500],
      [3, 650],
    ],
  },
  {
    id: "long-idle",
    title: "Idling long, then home",
    format: "csv",
    engines: 1,
    seed: 3,
    legs: [
      [28, 700],
      [6, 1300],
      [5, 2400],
      [4, 1800],
      [3, 650],
    ],
  },
  {
    id: "early-throttle",
    title: "Full throttle early",
    format: "csv",
    engines: 1,
    seed: 4,
    legs: [
      [4, 1100],
      [3, 2500],
      [4, 5900],
      [4, 2200],
      [3, 650],
    ],
  },
  {
    id: "dropped",
    title: "Varied, with dropped samples",
    format: "csv",
    engines: 1,
    seed: 5,
    legs: varied,
    drops: true,
  },
  { id: "twins", title: "Twins, as NMEA 0183 sentences", format: "nmea", engines: 2, seed: 6, legs: varied },
];

const startMin = 12 * 60 + 30;
const wobbleRpm = 60;

/** The demo's gateway: runs it made up itself, always the same ones, good and bad. */
export function createGatewayStandIn(): Gateway {
  return {
    list: () =>
      recordings.map(({ id, title, format, legs }) => ({
        id,
        title,
        format,
        minutes: legs.reduce((sum, [minutes]) => sum + minutes, 0),
      })),
    read(id) {
      const recording = recordings.find((each) => each.id === id);
      if (recording === undefined) return null;
      return recording.format === "csv" ? writeCsv(recording) : writeNmea(recording);
    },
  };
}

const two = (n: number) => String(n).padStart(2, "0");
const clockOf = (s: number) => {
  const at = startMin * 60 + s;
  return [two(Math.floor(at / 3600) % 24), two(Math.floor(at / 60) % 60), two(at % 60)] as const;
};

/** Second by second: speeds are reached within some ten seconds and then wander a little, as a hand and waves make them. */
function* eachSecond({ legs, seed, engines, drops }: Recording): Generator<{ s: number; rpms: number[] }> {
  const random = createRandom(seed);
  let rpm = 700;
  let wander = 0;
  let s = 0;
  for (const [minutes, goal] of legs)
    for (let i = 0; i < minutes * 60; i++, s++) {
      rpm += (goal - rpm) * 0.2;
      wander = wander * 0.98 + (random() - 0.5) * 8;
      const held = Math.max(-wobbleRpm, Math.min(wobbleRpm, wander));
      if (drops === true && s % 900 >= 840) continue;
      yield { s, rpms: Array.from({ length: engines }, (_, n) => Math.round(rpm + held + n * 15 * Math.sin(s / 97))) };
    }
}

function writeCsv(recording: Recording): string {
  const lines = ["time,engine rpm,coolant °C"];
  for (const { s, rpms } of eachSecond(recording))
    lines.push(`${clockOf(s).join(":")},${rpms[0]},${Math.min(72, 20 + Math.floor(s / 8))}`);
  return `${lines.join("\r\n")}\r\n`;
}

function writeNmea(recording: Recording): string {
  const lines: string[] = [];
  const day = dayOf(Date.now(), "UTC").split("-").reverse().join(",");
  const sentence = (body: string) => `$${body}*${checksumOf(body)}`;
  for (const { s, rpms } of eachSecond(recording)) {
    lines.push(sentence(`GPZDA,${clockOf(s).join("")}.00,${day},00,00`));
    for (const [i, rpm] of rpms.entries()) lines.push(sentence(`IIRPM,E,${i + 1},${rpm},,A`));
  }
  return `${lines.join("\r\n")}\r\n`;
}
