import type { Boat, CallList, CareLine } from "../../api/index.ts";
import { messageTemplates, rigTemplates } from "../../content/index.ts";

/** The day on which these lists are read. */
export const today = "2026-06-15";
/** A boat on the call list whose first service is past due. */
export const line = (change: Partial<CareLine> = {}): CareLine => ({
  boat: "b1",
  boatName: "Wending 23",
  serial: "23118",
  buyers: "Ilse Warrender-Featherstonehaugh-Okonkwo and Piet Marram",
  contact: { name: "", phone: "555 0100", email: "", optOut: false },
  delivery: "d1",
  weight: 80,
  reasons: [
    {
      reason: "service",
      says: "First service is past due",
      date: "2026-06-01",
      isOverdue: true,
      range: null,
      isAnyDay: false,
    },
  ],
  reportedH: 14,
  likelyNowH: 22,
  reportedOn: "2026-05-20",
  lastMessage: null,
  booking: null,
  callBack: null,
  questions: [],
  ...change,
});
/** The call list of a store of forty boats, with one message that waits and one that failed. */
export const callListOf = (lines: CareLine[]): CallList => ({
  date: today,
  lines,
  linesInAll: lines.length,
  boats: 40,
  templates: messageTemplates,
  store: "A yard",
  phone: "555 0142",
  jobs: [
    {
      id: "hello:b1",
      kind: "hello",
      boat: "b1",
      boatName: "Wending 23",
      dueAt: "2026-06-17T10:00:00.000Z",
      state: "waiting",
      tries: 0,
      note: "",
    },
    {
      id: "hello:b2",
      kind: "hello",
      boat: "b2",
      boatName: "Sedge 18",
      dueAt: "2026-06-14T10:00:00.000Z",
      state: "failed",
      tries: 5,
      note: "nobody answers",
    },
  ],
});
/** Twins, handed over in March, with their first service in two weeks. */
export const boat = {
  id: "b1",
  name: "Wending 23",
  hull: "",
  rig: rigTemplates["wending-23"],
  today,
  inService: "2026-03-01",
  care: [
    { engine: "port", label: "Port engine", likelyNowH: 19 },
    { engine: "starboard", label: "starboard", likelyNowH: 19 },
  ],
  visits: [
    {
      date: "2026-06-29",
      labourH: 3,
      items: ["port", "starboard"].map((scope) => ({
        scope,
        label: scope,
        item: "first-service",
        title: "First service",
        work: [],
        parts: ["Engine oil", "Oil filter"],
        labourH: 1.5,
        dueDate: "2026-06-29",
        by: "hours",
        isOverdue: false,
        range: null,
        isAnyDay: false,
      })),
    },
  ],
} as unknown as Boat;
