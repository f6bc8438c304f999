import type { RetentionRules, RetentionSheet } from "../../api/index.ts";
import { addMonths, msAt, toInstant } from "../../core/dates/index.ts";
import type { Clock } from "../clock.ts";
import type { Database } from "../database/open.ts";
import type { Boats } from "../repositories/boats.ts";
import type { Buyers } from "../repositories/buyers.ts";
import type { createSettings } from "../repositories/settings.ts";

interface Parts {
  readonly database: Database;
  readonly boats: Pick<Boats, "listHeads">;
  readonly buyers: Pick<Buyers, "listQuiet" | "strikeOldMessages" | "removeOldLog">;
  readonly settings: ReturnType<typeof createSettings>;
  readonly clock: Clock;
}

const mostQuiet = 500;

/** How long what is kept: what is older goes by itself, but no buyer, who is put before the owner. */
export function createRetentionService({ database, boats, buyers, settings, clock }: Parts) {
  const before = (months: number) => addMonths(clock.today(), -months);
  return {
    async read(): Promise<RetentionSheet> {
      const { retention: rules } = await settings.read();
      const found = rules.buyersYears === null ? [] : await buyers.listQuiet(before(rules.buyersYears * 12), mostQuiet);
      const heads = await boats.listHeads([...new Set(found.map(({ boat }) => boat))]);
      const quiet = found.map(({ delivery, person, boat, date, buyers: all }) => ({
        delivery,
        person,
        name: all.find(({ id }) => id === person)!.name,
        boatName: heads.find(({ id }) => id === boat)?.name ?? boat,
        date,
      }));
      return { rules, quiet };
    },
    setRules: (retention: RetentionRules) => settings.change({ retention }),
    /** Once a day: the words of old messages and old lines of the log go. Answers how many of each. */
    async keepRules(): Promise<{ messages: number; logLines: number }> {
      const { messagesMonths, logMonths } = (await settings.read()).retention;
      return database.inTransaction(async (t) => ({
        messages:
          messagesMonths === null
            ? 0
            : await buyers.strikeOldMessages(toInstant(msAt(before(messagesMonths), 0, clock.timeZone)), t),
        logLines: logMonths === null ? 0 : await buyers.removeOldLog(before(logMonths), t),
      }));
    },
  };
}
