import { createHash } from "node:crypto";
import { Op } from "sequelize";
import { firstLink, writeLink } from "../../core/record/index.ts";
import type { ChainRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll } from "../database/rows.ts";

export const hashText = (text: string) => createHash("sha256").update(text, "utf8").digest("hex");

interface NewLink extends Pick<ChainRow, "deliveryId" | "kind" | "canonical" | "at"> {
  /** Of `canonical`, unless a store that sealed it elsewhere said so. */
  readonly sha256?: string;
}

/** The store's seal chain: handovers sealed or taken in, and what was added to them. Only ever added to. */
export function createChain({ models }: Database) {
  const sealed = { kind: { [Op.in]: ["handover", "import"] } };
  return {
    /** The sealed record of a delivery; null while it is open. */
    async findSeal(deliveryId: string, transaction?: Transaction): Promise<ChainRow | null> {
      const [row] = await readAll(models.chain, { where: { deliveryId, ...sealed }, limit: 1 }, transaction);
      return row ?? null;
    },
    /** A sealed record by its seal, whichever delivery it is of. */
    async findBySha(sha256: string): Promise<ChainRow | null> {
      const [row] = await readAll(models.chain, { where: { sha256, ...sealed }, limit: 1 });
      return row ?? null;
    },
    /** What was added to a delivery after its seal, the first first. */
    listAmendments: (deliveryId: string, transaction?: Transaction) =>
      readAll(models.chain, { where: { deliveryId, kind: "amendment" }, order: ["number"] }, transaction),
    listAll: () => readAll(models.chain, { order: ["number"] }),
    /** Puts a link at the end. Within a transaction of its own store, so that no two are put there at once. */
    async add(fresh: NewLink, transaction: Transaction): Promise<ChainRow> {
      const [last] = await readAll(
        models.chain,
        { order: [["number", "DESC"]], limit: 1, attributes: ["link", "number"] },
        transaction,
      );
      const sha256 = fresh.sha256 ?? hashText(fresh.canonical);
      const previous = last?.link ?? firstLink;
      const link = hashText(writeLink(previous, sha256));
      const row = { ...fresh, sha256, previous, link };
      const made = await models.chain.create(row as ChainRow, { transaction });
      return { ...row, number: made.get("number") as number };
    },
  };
}

export type Chain = ReturnType<typeof createChain>;
