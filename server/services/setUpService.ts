import type { z } from "zod";
import type { StoreFacts } from "../../api/index.ts";
import type { setUpSchema } from "../../api/peopleSchemas.ts";
import type { Clock } from "../clock.ts";
import type { Database } from "../database/open.ts";
import { Failure } from "../failure.ts";
import type { Audit } from "../repositories/audit.ts";
import type { Account, People } from "../repositories/people.ts";
import type { Photos } from "../repositories/photos.ts";
import type { createSettings } from "../repositories/settings.ts";
import { createCode, isSameCode } from "../signIn/secondFactor.ts";
import type { StoreAddress } from "../storeAddress.ts";
import type { StaffService } from "./staffService.ts";

interface Parts {
  readonly database: Database;
  readonly people: People;
  readonly settings: ReturnType<typeof createSettings>;
  readonly staffService: StaffService;
  readonly audit: Audit;
  readonly photos: Photos;
  readonly clock: Clock;
  readonly storeAddress: StoreAddress;
}

/** What a store says of itself, from its first minute on. */
export function createSetUpService(parts: Parts) {
  const { database, people, settings, staffService, audit, photos, clock, storeAddress } = parts;
  let code: string | null = null;
  const read = async (): Promise<StoreFacts> => {
    const { store, place, phone, logo, webAddress, timeZone, region, quietHours, usualMin, allowers } =
      await settings.read();
    const zone = timeZone ?? clock.timeZone;
    return { store, place, phone, logo, webAddress, timeZone: zone, region, quietHours, usualMin, allowers };
  };
  const takeUp = ({ timeZone, webAddress }: Pick<StoreFacts, "timeZone" | "webAddress">) => {
    clock.setTimeZone(timeZone);
    storeAddress.set(webAddress);
  };
  return {
    read,
    /**
     * Takes up what the store says of itself. Answers the code that opens one nobody belongs to yet, made once a start; null
     * for a store that has an owner.
     */
    async begin(): Promise<string | null> {
      const { timeZone, webAddress } = await settings.read();
      if (timeZone !== null) clock.setTimeZone(timeZone);
      storeAddress.set(webAddress);
      code = (await people.count()) === 0 ? createCode() : null;
      return code;
    },
    /** Failure: `set-up-done`, `wrong-code`, `weak-password`. `code`: not asked of whoever sits at the server itself. */
    async setUp({
      code: typed,
      name,
      login,
      password,
      ...facts
    }: Omit<z.output<typeof setUpSchema>, "code"> & { code: string | null }): Promise<Account> {
      if ((await people.count()) > 0) throw new Failure("set-up-done");
      if (typed !== null && (code === null || !isSameCode(code, typed))) throw new Failure("wrong-code");
      const kept = await staffService.hash(password, [login, name, facts.store]);
      const account = await database.inTransaction(async (transaction) => {
        if ((await people.count(transaction)) > 0) throw new Failure("set-up-done");
        await settings.change(facts, transaction);
        return staffService.addPerson({ login, name, role: "owner", kept }, transaction);
      });
      code = null;
      takeUp(facts);
      const line = { at: clock.now(), by: account.id, name: account.name, kind: "staff", about: login } as const;
      await audit.add({ ...line, what: "Set the store up and became its owner" });
      return account;
    },
    /** Failure: `not-found` where the logo is no photo kept here. */
    async change(facts: StoreFacts) {
      const { logo } = facts;
      if (logo !== null && (await photos.find(logo, "small")) === null)
        throw new Failure("not-found", { what: "photo", id: logo });
      await settings.change(facts);
      takeUp(facts);
    },
  };
}

export type SetUpService = ReturnType<typeof createSetUpService>;
