import type { Role } from "../core/walk/roles.ts";
import { type EndpointName, endpoints } from "./endpoints/index.ts";

/** What somebody does here, in their words, and the endpoints it is made of; each has one place, and those of one line admit the same. */
const jobs: readonly (readonly [job: string, lines: readonly (readonly [does: string, ...of: EndpointName[]])[]])[] = [
  [
    "Walk a buyer through",
    [
      ["Plan a handover: whose, when, in which order, how long", "addDelivery", "setPlan"],
      ["Make a boat ready, mark, count, read hours, write down faults and promises, sign", "addEntries"],
      ["Take photos, attach a file", "setPhoto", "setFile"],
      ["Print the owner pack with the code for the helm", "labelledPack"],
      [
        "Make, send and end the owner's private page; send them their record",
        "setOwnerLink",
        "endOwnerLink",
        "sendRecord",
      ],
      ["Check whether a file is what was sealed", "verify"],
      ["Take in a handover that another store sealed", "previewBundle", "importBundle"],
      ["Send again, after a restore, what a device still holds", "missingEntries"],
    ],
  ],
  [
    "Describe boats",
    [
      [
        "Describe a boat: from a template, from another boat, from nothing; change its sheet",
        "addBoat",
        "setRig",
        "setStock",
      ],
      ["Look up the hull numbers of all boats", "hulls"],
      ["Add a whole stock list", "importBoats"],
      ["Keep templates of the store's own", "setTemplate", "removeTemplate"],
    ],
  ],
  [
    "After the handover",
    [
      ["Enter hours, runs and fuel; put right what was entered wrong", "addReading", "addRun", "addFill", "withdraw"],
      ["Write down a service that was done, or why it was not", "addService"],
      [
        "Write to a boat's people, note a call, keep how they are reached",
        ...(["sendMessage", "prepareMessage", "markSent", "stopMessage", "sendAgain", "setContact"] as const),
      ],
      ["Change the words of the messages", "setMessageTexts"],
      ["Take readings, services, runs, slots and messages along as tables", "careCsv", "careJson"],
      ["Begin anew to learn from calls", "forgetCalls"],
    ],
  ],
  [
    "Workshop",
    [
      ["Book, move, finish or cancel a slot", "setBooking"],
      ["Set the workshop's hours and closed days", "setWorkshop"],
      ["Make the private address of the store's calendar", "makeFeed"],
      ["Read what twelve months have taught", "reports"],
    ],
  ],
  [
    "On the road and at the ramp",
    [
      [
        "Enter the car, keep ramps, take back a launch that was seen wrong",
        "setVehicle",
        "setRamp",
        "removeRamp",
        "removeLaunch",
      ],
      ["Note how deep a launch was", "addLaunch"],
      ["Keep what a region asks of whoever tows", "setTowRules", "removeTowRules"],
    ],
  ],
  [
    "Keep the library",
    [
      ["Change topics in the store's own words, and back", "setTopic", "revertTopic", "importTopics"],
      ["Change trade words and the words in other languages", "setWord", "setPhrase"],
      ["Choose schools, and routes of the store's own", "setSchools", "setStyles"],
      ["Change break-in and service packs, and back", "setPack", "removePack"],
    ],
  ],
  [
    "One's own account",
    [
      [
        "Sign out, end a session, change one's password and language",
        "signOut",
        "endSession",
        "setPassword",
        "setLanguage",
      ],
      ["Choose a PIN and open one's session with it", "setPin", "beginPin", "openPin"],
      ["Have a second factor", "beginSecond", "setSecond", "removeSecond"],
    ],
  ],
  [
    "Answer for the store",
    [
      [
        "Invite people, change their roles, help them back in, switch them off",
        "staff",
        "invite",
        "removeInvite",
        "setPerson",
        "resetPerson",
      ],
      ["Share a tablet among several people, and end that", "admitDevice", "removeDevice"],
      ["Change the store's name, address, units and rules", "setStoreFacts"],
      ["Read and take along what was done in whose name", "audit", "auditCsv"],
      ["See, take along and forget what is held of a buyer", "buyer", "buyerFile", "forgetBuyer"],
      ["Say how long data is kept", "retention", "setRetention"],
      ["Make backups and see how they stand", "backups", "backUp"],
      ["Let the store go on after a restore", "restored", "release", "giveUpPhotos"],
      ["Take the whole store along as one file", "everything"],
    ],
  ],
  ["Calculations", [["Ask for a calculation by itself", "compute"]]],
];

export interface Right {
  readonly what: string;
  readonly admits: readonly Role[];
}

/** What each role may do, by the jobs people come to do; who may is read out of the descriptions that the server goes by. */
export const listRights = (): { readonly job: string; readonly rights: readonly Right[] }[] =>
  jobs.map(([job, lines]) => ({
    job,
    rights: lines.map(([what, ...of]) => {
      const { admits } = endpoints[of[0]!];
      return { what, admits: admits === "public" ? [] : [...admits] };
    }),
  }));

/** The endpoints of each line: a test holds that none is missing and that those of one line admit the same. */
export const listRightsOf = (): readonly (readonly EndpointName[])[] =>
  jobs.flatMap(([, lines]) => lines.map(([, ...of]) => of));
