import type { CallList, CareLine } from "../../api/index.ts";
import { type CareFacts, rankCare } from "../../core/aftercare/index.ts";
import { dayOf, type LocalDate, toInstant } from "../../core/dates/index.ts";
import type { Clock } from "../clock.ts";
import type { Jobs } from "../jobs.ts";
import type { Messages } from "../messages.ts";
import type { Boats } from "../repositories/boats.ts";
import type { Bookings } from "../repositories/bookings.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { createSettings } from "../repositories/settings.ts";
import { contactOf } from "./contactOf.ts";
import type { FleetBoat, FleetCare } from "./fleetCare.ts";
import { groupByBoat } from "./groupByBoat.ts";
import type { PostOffice } from "./letters.ts";
import { nameBoat } from "./nameBoat.ts";

export interface CallListParts {
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly bookings: Bookings;
  readonly messages: Messages;
  readonly fleetCare: FleetCare;
  readonly jobs: Jobs;
  readonly settings: ReturnType<typeof createSettings>;
  readonly clock: Clock;
}

const mostLines = 120;
const mostJobs = 30;

/** What a boat is ranked by besides what is known of its engines. One without promises has `noPromises`, always the same. */
type Asked = Pick<CareFacts, "lastContact" | "isBooked" | "latePromises" | "questions" | "callBack">;
const noPromises: CareFacts["latePromises"] = [];
const noQuestions: CareFacts["questions"] = [];

interface Ranked {
  readonly one: FleetBoat;
  readonly weight: number;
  readonly reasons: CareLine["reasons"];
  readonly lastMessage: CareLine["lastMessage"];
  readonly callBack: CareLine["callBack"];
  readonly questions: readonly (CareLine["questions"][number] & { readonly boatId: string })[];
}

/** The call list, the weightiest reason first. */
export function createCallList(parts: CallListParts, { readTemplates }: Pick<PostOffice, "readTemplates">) {
  const { boats, deliveries, bookings, messages, fleetCare, settings, clock } = parts;
  const rank = createRank();

  const rankAll = async (fleet: readonly FleetBoat[], isBooked: (boat: string) => boolean, today: LocalDate) => {
    const [overdue, questions, callBacks, last, contacts] = await Promise.all([
      deliveries.listLate(today),
      deliveries.listQuestions(),
      boats.listCallBacks(),
      messages.listLast(),
      messages.listContacts(),
    ]);
    const late = groupLate(overdue);
    const asking = new Map<string, typeof questions>();
    for (const question of questions) asking.set(question.boatId, [...(asking.get(question.boatId) ?? []), question]);
    const ranked = fleet.flatMap((one): Ranked[] => {
      const { id } = one.boat;
      const reachedAt = contacts.get(id);
      const lastContact = reachedAt === undefined ? null : dayOf(reachedAt, clock.timeZone);
      const theirs = asking.get(id) ?? [];
      const callBack = callBacks.get(id) ?? null;
      const asked: Asked = {
        lastContact,
        isBooked: isBooked(id),
        latePromises: late.get(id) ?? noPromises,
        questions:
          theirs.length === 0
            ? noQuestions
            : theirs.map(({ text, since }) => ({ text, since: dayOf(since, clock.timeZone) })),
        callBack,
      };
      const { weight, reasons } = rank(one, asked, today);
      return reasons.length === 0
        ? []
        : [{ one, weight, reasons, lastMessage: last.get(id) ?? null, callBack, questions: theirs }];
    });
    return ranked.sort((a, b) => b.weight - a.weight || (a.one.boat.id < b.one.boat.id ? -1 : 1));
  };
  return {
    async describe(): Promise<CallList> {
      const today = clock.today();
      const [fleet, booked] = await Promise.all([fleetCare.read(), bookings.list(today)]);
      const bookingOf = new Map(booked.filter(({ state }) => state === "booked").map((each) => [each.boat, each]));
      const ranked = await rankAll(fleet, (boat) => bookingOf.has(boat), today);
      const { store, phone } = await settings.read();
      return {
        date: today,
        lines: await describeLines(parts, ranked.slice(0, mostLines), bookingOf),
        linesInAll: ranked.length,
        boats: fleet.length,
        templates: await readTemplates(),
        store,
        phone,
        jobs: await describeJobs(parts),
      };
    },
  };
}

/** Only of those that are shown, people and slots are looked up. */
async function describeLines(
  { deliveries }: CallListParts,
  shown: readonly Ranked[],
  bookingOf: ReadonlyMap<string, CareLine["booking"]>,
) {
  const sold = await deliveries.listOfBoats(shown.map(({ one }) => one.boat.id));
  const soldOf = groupByBoat(sold);
  return shown.map(({ one, weight, reasons, lastMessage, callBack, questions }): CareLine => {
    const { boat, reportedH, likelyNowH, reportedOn } = one;
    const mine = soldOf.get(boat.id) ?? [];
    return {
      boat: boat.id,
      ...nameBoat(boat, mine),
      contact: contactOf(boat),
      delivery: mine.at(-1)?.id ?? null,
      weight,
      reasons,
      reportedH,
      likelyNowH,
      reportedOn,
      lastMessage,
      booking: bookingOf.get(boat.id) ?? null,
      callBack,
      questions: questions.map(({ boatId: _, ...question }) => question),
    };
  });
}

async function describeJobs({ boats, jobs }: CallListParts): Promise<CallList["jobs"]> {
  const listed = await jobs.list(mostJobs);
  const named = await boats.listHeads(listed.map(({ boatId }) => boatId));
  const nameOf = new Map(named.map((boat) => [boat.id, boat.name]));
  return listed.map(({ id, kind, boatId, dueAtMs, state, tries, note, doneAt }) => ({
    id,
    kind,
    boat: boatId,
    boatName: nameOf.get(boatId) ?? boatId,
    dueAt: doneAt ?? toInstant(dueAtMs),
    state,
    tries,
    note,
  }));
}

/** Ranked once for as long as nothing of a boat changes: of a large fleet hardly anything has since the last look. */
function createRank() {
  const ranks = new WeakMap<FleetBoat, { asked: Asked; today: LocalDate; answer: ReturnType<typeof rankCare> }>();
  return (one: FleetBoat, asked: Asked, today: LocalDate) => {
    const known = ranks.get(one);
    const isSame =
      known !== undefined &&
      known.today === today &&
      known.asked.lastContact === asked.lastContact &&
      known.asked.isBooked === asked.isBooked &&
      known.asked.latePromises === asked.latePromises &&
      known.asked.questions === asked.questions &&
      known.asked.callBack === asked.callBack;
    if (isSame) return known.answer;
    const answer = rankCare({ ...one.facts, ...asked }, today);
    ranks.set(one, { asked, today, answer });
    return answer;
  };
}

type Late = CareFacts["latePromises"][number];

function groupLate(overdue: readonly (Late & { readonly boatId: string })[]): ReadonlyMap<string, readonly Late[]> {
  const late = new Map<string, Late[]>();
  for (const { boatId, text, due } of overdue) late.set(boatId, [...(late.get(boatId) ?? []), { text, due }]);
  return late;
}
