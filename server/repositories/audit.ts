import { Op } from "sequelize";
import type { AuditKind } from "../../api/index.ts";
import type { Instant } from "../../core/dates/index.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll } from "../database/rows.ts";

export interface AuditLine {
  readonly number: number;
  readonly at: Instant;
  /** Who did it, by id; empty where nobody was signed in. */
  readonly by: string;
  readonly name: string;
  readonly kind: AuditKind;
  readonly what: string;
  readonly about: string;
}

/** Texts may come from outside: a line stays a line. */
const mostOfAbout = 300;

/** Who did what to the store itself: only added to (triggers hold it). */
export function createAudit({ models }: Database) {
  return {
    async add(line: Omit<AuditLine, "number">, transaction?: Transaction) {
      const about = line.about.replace(/[\p{Cc}\s]+/gu, " ").slice(0, mostOfAbout);
      await models.audit.create({ ...line, about }, transaction === undefined ? {} : { transaction });
    },
    /** The latest first, from before `before`; with all of these words somewhere in the line. */
    async list({ find, before, most }: { find: string; before: number | null; most: number }): Promise<AuditLine[]> {
      const words = find.split(/\s+/).filter((word) => word !== "");
      const has = words.map((word) => {
        const like = { [Op.like]: `%${word.replace(/[%_]/g, " ").trim()}%` };
        return { [Op.or]: [{ name: like }, { what: like }, { about: like }, { kind: like }, { at: like }] };
      });
      const rows = await readAll(models.audit, {
        where: { [Op.and]: has, ...(before === null ? {} : { number: { [Op.lt]: before } }) },
        order: [["number", "DESC"]],
        limit: most,
      });
      return rows as unknown as AuditLine[];
    },
  };
}

export type Audit = ReturnType<typeof createAudit>;
