import { createHash, randomBytes } from "node:crypto";
import { Op } from "sequelize";
import type { Instant } from "../../core/dates/index.ts";
import type { OwnerLinkRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll, readOne } from "../database/rows.ts";

const tokenBytes = 16;
const dayMs = 86_400_000;
/** A page that nobody has opened for longer than a winter and a season is closed: its address stands on papers. */
const keptMs = 400 * dayMs;
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
          {
            tokenHash: hashToken(token),
            deliveryId,
            madeAt,
            by,
            isRemote: isRemote ? 1 : 0,
            endedAt: null,
            usedAt: madeAt,
          },
          { transaction },
        );
      });
      return token;
    },
    /** Another address beside those there are, for a message; it ends when the page's address is replaced or ended. */
    async add(deliveryId: string, by: string, madeAt: Instant, transaction: Transaction): Promise<string> {
      const token = randomBytes(tokenBytes).toString("base64url");
      await models.ownerLinks.create(
        { tokenHash: hashToken(token), deliveryId, madeAt, by, isRemote: 0, endedAt: null, usedAt: madeAt },
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
    async endAllOf(deliveryIds: readonly string[], endedAt: Instant, transaction: Transaction) {
      const where = { deliveryId: { [Op.in]: [...deliveryIds] }, endedAt: null };
      await models.ownerLinks.update({ endedAt }, { where, transaction });
    },
    /** What a token opens; null for one that never was, has ended, or was not used for long. Being asked counts as used. */
    async find(token: string, now: Instant): Promise<OwnerLinkRow | null> {
      const row = await readOne(models.ownerLinks, hashToken(token));
      if (row === null || row.endedAt !== null) return null;
      const unusedMs = Date.parse(now) - Date.parse(row.usedAt ?? row.madeAt);
      if (unusedMs > keptMs) return null;
      if (unusedMs > dayMs) await models.ownerLinks.update({ usedAt: now }, { where: { tokenHash: row.tokenHash } });
      return row;
    },
  };
}

export type OwnerLinks = ReturnType<typeof createOwnerLinks>;
