import { ulid } from "ulid";
import { rigTemplates } from "../content/index.ts";
import { addDays, type LocalDate, toInstant } from "../core/dates/index.ts";
import type { RampSheet } from "../core/ramp/index.ts";
import { defaultPlanOptions, type PlanOptions, type StyleId } from "../core/route/index.ts";
import { toCore } from "../core/units/index.ts";
import { formatBuyers } from "../core/walk/index.ts";
import type { Workshop } from "../core/workshop/index.ts";
import { createClock } from "../server/clock.ts";
import { createServices } from "../server/createServices.ts";
import type { Database } from "../server/database/open.ts";
import { ownerPerson } from "../server/services/author.ts";
import { summarize } from "../server/services/summarize.ts";
import { hashHere, hashPassword } from "../server/signIn/passwords.ts";
import { createStoreKey, type StoreKey } from "../server/storeKey.ts";
import { demoAccounts, demoCost } from "./accounts.ts";
import { demo } from "./demo.ts";
import { asItHappened, type TaleOf, tellCall, tellMakeReady, tellWalk, type WalkTale } from "./walkEntries.ts";

interface Story {
  readonly id: string;
  readonly boatName: string;
  /** The template it was described from. */
  readonly rig?: keyof typeof rigTemplates;
  readonly hull: string;
  readonly daysAgo: number;
  readonly time: string;
  readonly note: string;
  readonly buyers: readonly string[];
  /** How they are reached, where anybody has asked. */
  readonly contact?: { readonly phone: string; readonly email: string };
  readonly style: StyleId;
  readonly planOptions?: Partial<PlanOptions>;
  /** What the workshop has not done yet. */
  readonly openChecks: readonly string[] | "all";
  readonly tale: Omit<WalkTale, "startMs" | "by"> | null;
  readonly snags?: readonly TaleOf<"snag">[];
  /** Readings after delivery: days ago, hours by engine. */
  readonly readings?: readonly (readonly [daysAgo: number, hours: Readonly<Record<string, number>>])[];
  /** Of a boat that others had: its year, what they changed, its hours when it came, and what is known to have been done. */
  readonly used?: {
    readonly modelYear: number;
    readonly changes: string[];
    readonly hours: Readonly<Record<string, number>>;
    readonly services: readonly {
      readonly daysAgo: number;
      readonly engine: string;
      readonly item: string;
      readonly hours: number;
      readonly outcome: "done" | "elsewhere";
      readonly note: string;
    }[];
  };
  /** Of its engines, where it is not the template's. */
  readonly breakInPack?: string;
  /** What they called about, or asked on their page: what failed, what was looked at, whether that was good. */
  readonly calls?: readonly DemoCall[];
  /** Fuel taken, a full tank each time. */
  readonly fills?: readonly (readonly [daysAgo: number, gallons: number])[];
}

/** Where the made-up yard's buyers launch. */
const ramps: readonly RampSheet[] = [
  {
    id: "north",
    name: "Ondrel, north ramp",
    riseM: 0.26,
    runM: 2,
    surface: "concrete",
    isDriveOn: false,
    staging: "on the grass by the shed",
  },
  { id: "sallow", name: "Sallow Creek", riseM: 0.17, runM: 2, surface: "gravel", isDriveOn: true, staging: "" },
];

interface DemoCall {
  readonly daysAgo: number;
  readonly time: string;
  readonly fails: string;
  readonly looked: Readonly<Record<string, boolean>>;
  readonly minutes: number;
  readonly isAsked?: boolean;
}

/** The made-up yard's boats, at every stage from make-ready to overdue. Days count back from today. */
const listStories = (today: LocalDate): readonly Story[] => [
  {
    id: "w118",
    boatName: "Wending 23",
    hull: "SLW23118K526",
    daysAgo: 0,
    time: "10:30",
    note: "First boat. Two adults, a boy of eight. Towing home to the north shore.",
    buyers: ["Rafe Okonjo-Bell", "Lindy Okonjo-Bell"],
    style: "power-first",
    planOptions: { people: 2, budgetMin: 90 },
    openChecks: [],
    tale: null,
  },
  {
    id: "w121",
    boatName: "Wending 23",
    hull: "SLW23121L526",
    daysAgo: 0,
    time: "14:00",
    note: "Has owned before. Knows trailers; short on time.",
    buyers: ["Marguerite-Philippa Van der Oosterhuizen-Castellanos"],
    style: "trailer-first",
    planOptions: { budgetMin: 60, experience: "experienced" },
    openChecks: ["safety", "keys", "coupler", "trailer-lights", "trailer-wheels", "tie-downs"],
    tale: null,
    snags: [{ topic: "tell-tale", note: "Starboard tell-tale weak on the water test", stops: true }],
  },
  {
    id: "w112",
    boatName: "Wending 23",
    hull: "SLW23112J526",
    daysAgo: 1,
    time: "15:30",
    note: "Second key to follow from the maker.",
    buyers: ["Dov Anselm"],
    style: "day-in-the-life",
    planOptions: { budgetMin: 120 },
    openChecks: [],
    tale: {
      seed: 7,
      hours: { port: 0.9, starboard: 0.9 },
      marks: { plotter: { mark: "later", note: "by phone, on his own water" } },
      isSigned: true,
    },
  },
  {
    id: "w097",
    boatName: "Wending 23",
    hull: "SLW23097G526",
    daysAgo: 61,
    time: "11:00",
    note: "",
    buyers: ["Tamsin Hollick", "Bram Hollick"],
    contact: { phone: "555 0171", email: "hollick@example.test" },
    style: "power-first",
    planOptions: { budgetMin: 120 },
    calls: [
      { daysAgo: 50, time: "11:40", fails: "well-holds", looked: { "stand-pipe": false }, minutes: 3 },
      { daysAgo: 1, time: "17:50", fails: "starts:port", looked: { lanyard: true, neutral: true }, minutes: 7 },
    ],
    openChecks: [],
    tale: {
      seed: 11,
      hours: { port: 1.1, starboard: 1.0 },
      short: { keys: 1 },
      snags: [
        {
          topic: "gauges",
          note: "Port trim gauge reads low",
          stops: false,
          how: "by-date",
          owner: "Tobin Ashgrove",
          due: addDays(today, -12),
        },
        { topic: null, note: "Scuff on the stern seat, starboard corner", stops: false, how: "cosmetic" },
      ],
      promises: [
        { note: "Table leg for the bow, on order", isExtra: true, owner: "Corwin Vale", due: addDays(today, -3) },
      ],
      isSigned: true,
    },
    readings: [
      [47, { port: 6.2, starboard: 6.0 }],
      [30, { port: 11.4, starboard: 11.1 }],
      [9, { port: 17.6, starboard: 17.2 }],
    ],
  },
  {
    id: "w081",
    boatName: "Wending 23",
    hull: "SLW23081E526",
    daysAgo: 154,
    time: "09:30",
    note: "",
    buyers: ["Ilse Varnholt"],
    style: "sweep",
    planOptions: { budgetMin: 120 },
    calls: [
      { daysAgo: 120, time: "16:10", fails: "well-holds", looked: { "stand-pipe": false }, minutes: 4 },
      {
        daysAgo: 40,
        time: "10:25",
        fails: "fresh-runs",
        looked: { "tank-empty": true, "air-in-line": false },
        minutes: 6,
      },
    ],
    openChecks: [],
    tale: {
      seed: 13,
      hours: { port: 0.7, starboard: 0.7 },
      promises: [
        {
          note: "Stereo speakers left in their box: to be fitted at the first service",
          isExtra: true,
          owner: "Ines Marr",
          due: addDays(today, 16),
        },
      ],
      isSigned: true,
    },
    readings: [
      [120, { port: 9.3, starboard: 9.2 }],
      [75, { port: 21.5, starboard: 21.4 }],
    ],
  },
  {
    id: "m204",
    boatName: "Millrace 24",
    rig: "millrace-24",
    hull: "QFP24204J526",
    daysAgo: 0,
    time: "16:30",
    note: "First boat, a family of four. An hour before the ferry.",
    buyers: ["Benedikta Aldous", "Caspar Aldous"],
    style: "power-first",
    planOptions: { people: 4, budgetMin: 60 },
    openChecks: ["keys"],
    tale: null,
  },
  {
    id: "s310",
    boatName: "Sedge 18",
    rig: "sedge-18",
    hull: "UMA18310I526",
    daysAgo: -1,
    time: "09:00",
    note: "Fishes with his brother; wants the bow motor explained slowly.",
    buyers: ["Jory Penhallick"],
    style: "sweep",
    planOptions: { budgetMin: 90 },
    openChecks: [
      "water-test",
      "meter",
      "fuel",
      "bow-motor",
      "safety",
      "keys",
      "coupler",
      "trailer-lights",
      "trailer-wheels",
      "tie-downs",
    ],
    tale: null,
  },
  {
    id: "f207",
    boatName: "Ferrin 20",
    rig: "ferrin-20",
    hull: "BRW20207H122",
    daysAgo: -2,
    time: "13:00",
    note: "Traded in on a larger boat; the owner before looked after it and rewired some of it.",
    buyers: ["Odalys Wrenfield-Achterberg"],
    style: "trailer-first",
    planOptions: { budgetMin: 90 },
    openChecks: "all",
    tale: null,
    used: {
      modelYear: 2022,
      changes: [
        "Second battery under the port seat, on the house switch",
        "Stereo and four speakers changed; two wires left taped off behind the dash",
      ],
      hours: { main: 186.4 },
      services: [
        {
          daysAgo: 410,
          engine: "main",
          item: "impeller",
          hours: 121,
          outcome: "elsewhere",
          note: "Yard on the north shore; the bill came with the boat",
        },
        {
          daysAgo: 1,
          engine: "main",
          item: "annual",
          hours: 186.4,
          outcome: "done",
          note: "Oil, filters, gear oil; plugs looked at",
        },
      ],
    },
  },
  {
    id: "h402",
    boatName: "Haldern 25",
    rig: "haldern-25",
    hull: "BRW25402G526",
    daysAgo: -4,
    time: "10:00",
    note: "Handed over afloat at the long dock; sleeps aboard the first night.",
    buyers: ["Matthis Corrigal", "Una Corrigal"],
    style: "storage-tour",
    planOptions: { people: 2, budgetMin: 120, place: "afloat" },
    openChecks: "all",
    tale: null,
  },
  {
    id: "p615",
    boatName: "Pluma 22",
    rig: "pluma-22",
    hull: "ORW22615K526",
    daysAgo: 24,
    time: "11:30",
    note: "",
    buyers: ["Severin Halloway"],
    style: "power-first",
    planOptions: { budgetMin: 120 },
    calls: [{ daysAgo: 2, time: "19:05", fails: "ballast-fills", looked: {}, minutes: 2, isAsked: true }],
    openChecks: [],
    tale: {
      seed: 17,
      hours: { main: 1.2 },
      snags: [
        {
          topic: null,
          note: "Light strip at the bow is out of step with the others",
          stops: false,
          how: "by-date",
          due: addDays(today, 5),
        },
      ],
      promises: [{ note: "Second lesson at the dock, by appointment", isExtra: false, owner: "Nessa Quill" }],
      isSigned: true,
    },
    readings: [
      [16, { main: 7.5 }],
      [6, { main: 13.1 }],
    ],
    breakInPack: "tanks-3",
    fills: [
      [24, 0],
      [16, 36.5],
      [6, 40.2],
    ],
  },
];

const colors = ["white", "white, navy", "sand", "white, red"] as const;

/** Hours of work a day, Monday first. */
export const demoWorkshop: Workshop = { hoursPerDay: [6, 6, 6, 6, 6, 2, 0], closed: [] };

/** Fills an empty store with the demo, through the same services that serve people. Dates are relative to `today`. */
export async function makeDemoStore(
  database: Database,
  today: LocalDate,
  timeZone: string,
  storeKey: StoreKey = createStoreKey(),
): Promise<void> {
  let nowMs = 0;
  const clock = { ...createClock(timeZone, () => nowMs), timeZone, today: () => today };
  const services = createServices(database, clock, demo, { storeKey, tellsPast: true });
  await services.settings.change({
    store: "Pellow & Marr Boatyard, Lake Ondrel",
    phone: "555 0142",
    monthlyHours: [3, 3, 5, 7, 9, 10, 10, 9, 8, 6, 4, 3],
    workshop: demoWorkshop,
  });
  for (const { password, ...account } of demoAccounts)
    await services.people.add({ ...account, kept: await hashPassword(hashHere, password, demoCost) });
  for (const ramp of ramps) await services.towingService.setRamp(ramp);
  const nessa = (await services.people.findByLogin("nessa"))!;
  const tobin = (await services.people.findByLogin("tobin"))!;
  const noonMs = (date: LocalDate, time: string) => Date.parse(`${date}T${time}:00Z`);
  for (const story of listStories(today)) {
    const date = addDays(today, -story.daysAgo);
    const template = story.rig ?? "wending-23";
    const { engines, ...asBuilt } = rigTemplates[template];
    const { used } = story;
    const rig = {
      ...asBuilt,
      ...(used === undefined ? {} : { modelYear: used.modelYear, used: { changes: used.changes } }),
      engines: engines.map((engine) => ({ ...engine, breakInPack: story.breakInPack ?? engine.breakInPack })),
    };
    const planOptions = { ...defaultPlanOptions, style: story.style, ...story.planOptions };
    const prepared = await services.rigService.prepare(
      JSON.stringify(rig),
      await services.libraryService.read(),
      planOptions,
    );
    await services.boats.add({
      ...{ id: story.id, name: story.boatName, hull: story.hull, rig, template },
      ...{ stock: `S-${story.hull.slice(3, 8)}`, color: colors[story.hull.charCodeAt(7) % colors.length]! },
    });
    if (story.contact !== undefined)
      await services.boats.setContact(story.id, { name: "", optOut: false, ...story.contact });
    await services.deliveries.add({
      id: `d-${story.id}`,
      boatId: story.id,
      date,
      time: story.time,
      note: story.note,
      buyers: story.buyers.map((name, i) => ({ id: `b${i + 1}`, name })),
      planOptions,
      summary: summarize(prepared, [], [], false),
    });
    const delivery = await services.handoverService.describe(`d-${story.id}`);
    const readyMs = noonMs(addDays(date, -1), "14:00");
    const { openChecks } = story;
    const checked = openChecks === "all" ? [] : delivery.makeReady.filter(({ id }) => !openChecks.includes(id));
    const makeReadyEntries = tellMakeReady(delivery, tobin.id, readyMs, checked);
    const snags = (story.snags ?? []).map((snag, i) => {
      const ms = readyMs + 7_200_000 + i;
      return {
        id: ulid(ms),
        delivery: delivery.id,
        at: toInstant(ms),
        by: tobin.id,
        device: "demo",
        kind: "snag" as const,
        ...snag,
      };
    });
    await services.handoverService.addEntries(delivery.id, tobin, [...makeReadyEntries, ...snags], asItHappened);
    if (used !== undefined) {
      nowMs = readyMs;
      const read = { date: addDays(today, -1), source: "workshop" as const };
      for (const [engine, hours] of Object.entries(used.hours))
        await services.careEntryService.addReading(story.id, tobin.name, { ...read, id: ulid(readyMs), engine, hours });
      for (const { daysAgo, ...service } of used.services) {
        const on = addDays(today, -daysAgo);
        await services.careEntryService.addService(story.id, tobin.name, {
          ...service,
          id: ulid(noonMs(on, "15:00")),
          date: on,
        });
      }
    }
    if (story.tale === null) continue;
    const startMs = noonMs(date, story.time);
    nowMs = startMs + 2 * 60 * 60 * 1000;
    await services.handoverService.addEntries(
      delivery.id,
      nessa,
      tellWalk(await services.handoverService.describe(delivery.id), { ...story.tale, by: nessa.id, startMs }),
      asItHappened,
    );
    if (!story.tale.isSigned) continue;
    for (const [daysAgo, hoursOf] of story.readings ?? []) {
      const on = addDays(today, -daysAgo);
      for (const [engine, hours] of Object.entries(hoursOf))
        await services.careEntryService.addReading(story.id, nessa.name, {
          id: ulid(noonMs(on, "12:00")),
          engine,
          date: on,
          hours,
          source: "phone",
        });
    }
    for (const call of story.calls ?? []) {
      const ms = noonMs(addDays(today, -call.daysAgo), call.time);
      nowMs = ms;
      await services.handoverService.addEntries(delivery.id, call.isAsked ? ownerPerson : nessa, [
        tellCall(
          await services.handoverService.describe(delivery.id),
          call,
          ms,
          call.isAsked ? ownerPerson.id : nessa.id,
        ),
      ]);
    }
    for (const [daysAgo, gallons] of story.fills ?? []) {
      const on = addDays(today, -daysAgo);
      const typed = { value: gallons, unit: "us-gal" } as const;
      const litres = toCore(typed, "volume");
      const fill = { id: ulid(noonMs(on, "17:00")), date: on, litres, typed, isFull: true };
      await services.careEntryService.addFill(story.id, nessa.name, fill);
    }
  }
  await addMessages(services, database, today);
}

/** What was written to buyers before today, one that did not arrive among them. */
async function addMessages(services: ReturnType<typeof createServices>, database: Database, today: LocalDate) {
  const written = [
    {
      boat: "w097",
      kind: "note",
      daysAgo: 3,
      state: "delivered",
      text: "Pellow & Marr: the bow table leg is on order. We call you when it is here.",
    },
    {
      boat: "w081",
      kind: "service",
      daysAgo: 2,
      state: "failed",
      text: "Hello, the first service of Wending 23 is near. Shall we book a date for you? Answer here or call 555 0142.",
    },
  ];
  for (const { boat, kind, daysAgo, state, text } of written) {
    const ms = Date.parse(`${addDays(today, -daysAgo)}T10:20:00Z`);
    const { buyers } = (await services.deliveries.find(`d-${boat}`))!;
    await database.models.messages.create({
      ...{ id: ulid(ms), deliveryId: `d-${boat}`, boatId: boat, kind, state, text, answer: null },
      recipient: formatBuyers(buyers),
      at: toInstant(ms),
    });
  }
}
