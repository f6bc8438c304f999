import { createHash, randomBytes } from "node:crypto";
import type { Instant } from "../../core/dates/index.ts";
import type { OwnerLinkRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll, readOne } from "../database/rows.ts";

const tokenBytes = 16;
const hashToken = (token: string) => createHash("sha256").update(token).digest("hex");

/** Private addresses of owners: one a delivery, known by the hash of its 128-bit token. */
export function createOwnerLinks({ models, inTransaction }: Database) {
  const endAll = (deliveryId: string, endedAt: Instant) => ({
    values: { endedAt },
    options: { where: { deliveryId, endedAt: null } },
  });
  return {
    /** Makes a new link and ends the one there was. The token is told once and never again. */
    async replace(deliveryId: string, by: string, madeAt: Instant, isRemote: boolean): Promise<string> {
      const token = randomBytes(tokenBytes).toString("base64url");
      await inTransaction(async (transaction) => {
        const { values, options } = endAll(deliveryId, madeAt);
        await models.ownerLinks.update(values, { ...options, transaction });
        await models.ownerLinks.create(
          { tokenHash: hashToken(token), deliveryId, madeAt, by, isRemote: isRemote ? 1 : 0, endedAt: null },
          { transaction },
        );
      });
      return token;
    },
    /** Another address beside those there are, for a message; it ends when the page's address is replaced or ended. */
    async add(deliveryId: string, by: string, madeAt: Instant, transaction: Transaction): Promise<string> {
      const token = randomBytes(tokenBytes).toString("base64url");
      await models.ownerLinks.create(
        { tokenHash: hashToken(token), deliveryId, madeAt, by, isRemote: 0, endedAt: null },
        { transaction },
      );
      return token;
    },
    async end(deliveryId: string, endedAt: Instant) {
      const { values, options } = endAll(deliveryId, endedAt);
      await models.ownerLinks.update(values, options);
    },
    async findOf(deliveryId: string): Promise<OwnerLinkRow | null> {
      const [row] = await readAll(models.ownerLinks, {
        where: { deliveryId, endedAt: null },
        order: ["madeAt"],
        limit: 1,
      });
      return row ?? null;
    },
    /** What a token opens; null for one that never was or has ended. */
    async find(token: string): Promise<OwnerLinkRow | null> {
      const row = await readOne(models.ownerLinks, hashToken(token));
      return row === null || row.endedAt !== null ? null : row;
    },
  };
}

export type OwnerLinks = ReturnType<typeof createOwnerLinks>;
