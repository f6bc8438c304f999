import { addDays, msAt } from "../../core/dates/index.ts";
import type { Clock } from "../clock.ts";
import type { Database, Transaction } from "../database/open.ts";
import type { Jobs, NewJob } from "../jobs.ts";
import type { Messages } from "../messages.ts";
import type { Boats } from "../repositories/boats.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import { contactOf } from "./contactOf.ts";
import type { FleetCare } from "./fleetCare.ts";
import { isForOthers } from "./formerOwners.ts";
import { type PostOffice, recordKind } from "./letters.ts";

export interface CareJobParts {
  readonly database: Database;
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly messages: Messages;
  readonly fleetCare: FleetCare;
  readonly jobs: Jobs;
  readonly clock: Clock;
}

const morningMin = 10 * 60;
const contactAfterDays = 2;

/** What the server writes by itself: planned, sent when its day comes, in quiet hours the next morning. */
export function createCareJobs(parts: CareJobParts, { mustWait, getBoat, findRecipient, carry, fill }: PostOffice) {
  const { database, boats, deliveries, messages, fleetCare, jobs, clock } = parts;
  const writeByItself = (template: string) => async (job: { id: string; boatId: string }, t: Transaction) => {
    const boat = await getBoat(job.boatId, t);
    if (contactOf(boat).optOut) return "not sent: they do not want to be written to";
    const message = { id: `job-${job.id}`, kind: template, text: await fill(template, boat), at: clock.now() };
    if (await mustWait()) {
      const { deliveryId, recipient } = await findRecipient(boat);
      await messages.hold({ ...message, deliveryId, boatId: boat.id, recipient }, t);
      return "waits for the morning";
    }
    await carry(message, boat.id, "ravik", t);
    return "sent";
  };
  jobs.on("hello", writeByItself("hello"));
  jobs.on("break-in-end", writeByItself("break-in-end"));

  return {
    /** What the server plans by itself: the first contact after a handover, and the end of a break-in. */
    async planJobs() {
      const today = clock.today();
      const planned: NewJob[] = [];
      for (const { boat, facts, reportedH, breakInH } of await fleetCare.read()) {
        const contactOn = addDays(facts.inService, contactAfterDays);
        if (contactOn >= addDays(today, -1))
          planned.push({
            id: `hello:${boat.id}:${facts.inService}`,
            kind: "hello",
            boatId: boat.id,
            dueAtMs: msAt(contactOn, morningMin, clock.timeZone),
          });
        const ends = facts.engines.find(({ isBreakInDone }) => !isBreakInDone)?.breakInEnds?.date;
        const isEnding = ends != null && ends <= addDays(today, 3);
        if (isEnding && reportedH !== null && breakInH !== null)
          planned.push({
            id: `break-in-end:${boat.id}`,
            kind: "break-in-end",
            boatId: boat.id,
            dueAtMs: msAt(ends < today ? addDays(today, 1) : ends, morningMin, clock.timeZone),
          });
      }
      await jobs.plan(planned);
    },

    /** What waited for the morning goes out; what went out is followed up. */
    async carryOn() {
      const failures: unknown[] = [];
      if (!(await mustWait()))
        for (const { id, kind, text, at, boatId, deliveryId } of await messages.listHeld())
          await database
            .inTransaction(async (transaction) => {
              // Whoever has said meanwhile that they want no messages gets none.
              if (contactOf(await getBoat(boatId, transaction)).optOut) return messages.stop(id, transaction);
              const of = kind === recordKind && deliveryId !== null ? await deliveries.find(deliveryId) : null;
              // A record that waited goes to nobody once the boat is meant for others.
              if (of !== null && (await isForOthers(deliveries, of))) return messages.stop(id, transaction);
              return carry({ id, kind, text, at, of: of ?? undefined }, boatId, "ravik", transaction);
            })
            .catch((error: unknown) => failures.push(error));
      const listReached = async (ids: readonly string[]) =>
        new Set((await boats.listHeads(ids)).flatMap((boat) => (contactOf(boat).phone === "" ? [] : [boat.id])));
      await database.inTransaction((transaction) => messages.settle(listReached, transaction));
      // One that cannot be sent holds up none of the others, and is said.
      if (failures.length > 0) throw failures[0];
    },
  };
}
