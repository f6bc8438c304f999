import type { Instant } from "../../core/dates/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import type { Database } from "../database/open.ts";
import { readAll, readOne } from "../database/rows.ts";

export interface TemplateRecord {
  readonly id: string;
  readonly name: string;
  /** As stored; parse with the rig service, which remembers. */
  readonly rigText: string;
}

/** The store's own templates; those that ship are content. */
export function createTemplates({ models }: Database) {
  return {
    async list(): Promise<TemplateRecord[]> {
      const rows = await readAll(models.templates, { order: ["name", "id"] });
      return rows.map(({ id, name, rig }) => ({ id, name, rigText: rig }));
    },
    async find(id: string): Promise<TemplateRecord | null> {
      const row = await readOne(models.templates, id);
      return row === null ? null : { id, name: row.name, rigText: row.rig };
    },
    async write(template: { id: string; name: string; rig: Rig; at: Instant }) {
      await models.templates.upsert({ ...template, rig: JSON.stringify(template.rig) });
    },
    async remove(id: string): Promise<boolean> {
      return (await models.templates.destroy({ where: { id } })) > 0;
    },
  };
}

export type Templates = ReturnType<typeof createTemplates>;
