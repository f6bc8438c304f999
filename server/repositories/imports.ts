import { z } from "zod";
import { type SealedBundle, verdicts } from "../../core/record/index.ts";
import type { ImportRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll } from "../database/rows.ts";

/** What another store signed, as its file had it: of seal and additions, and of the whole. */
export interface ImportProof {
  readonly format: SealedBundle["format"];
  readonly chain: SealedBundle["chain"] | null;
  readonly amendments: readonly unknown[];
  readonly signature: SealedBundle["signature"] | null;
}

/** How a handover that another store sealed was taken in. */
export interface Import extends Omit<ImportRow, "proof" | "verdict"> {
  /** As it was found then. */
  readonly verdict: (typeof verdicts)[number];
  readonly proof: ImportProof;
}

/** What was taken in from other stores. Only added to. */
export function createImports({ models }: Database) {
  return {
    async add({ proof, ...rest }: Import, transaction: Transaction): Promise<void> {
      await models.imports.create({ ...rest, proof: JSON.stringify(proof) }, { transaction });
    },
    /** Null of what is this store's own, and of what was taken in before this was noted. */
    async find(deliveryId: string, transaction?: Transaction): Promise<Import | null> {
      const [row] = await readAll(models.imports, { where: { deliveryId }, limit: 1 }, transaction);
      if (row === undefined) return null;
      return { ...row, verdict: z.enum(verdicts).parse(row.verdict), proof: JSON.parse(row.proof) as ImportProof };
    },
  };
}

export type Imports = ReturnType<typeof createImports>;
