import { isIP } from "node:net";
import { z } from "zod";
import { zoneSchema } from "../../api/peopleSchemas.ts";

const hostName = /^(?=.{1,253}$)([a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?)(\.[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?)*$/;

/** What an installation has to know before it changes anything. */
export const answersSchema = z
  .strictObject({
    /** The name under which browsers reach the machine: "handover.example.com", "ravik.yard". */
    name: z.string().trim().toLowerCase().regex(hostName, "is a name such as ravik.yard, without https:// before it"),
    /** Who vouches for that name: an authority that browsers know, or one of the store's own, which each tablet is told of. */
    authority: z.enum(["public", "own"]),
    /** To whom the public authority writes before a certificate ends. */
    email: z.email("is an address for mail").nullable(),
    /** Addresses of the machine in the yard's network, by which tablets may reach it as well. */
    addresses: z.array(z.string().refine((text) => isIP(text) !== 0, "are addresses such as 192.168.1.10")).max(8),
    /** A folder on another disk. */
    backupFolder: z
      .string()
      .trim()
      .regex(/^\/[^\n"'$`\\ ]+$/, "is a folder, written from / on, without spaces or quotation marks")
      .nullable(),
    /** Locks the store's key into each backup. */
    passphrase: z
      .string()
      .regex(/^[^\n"'$`\\]{12,200}$/, "has twelve letters or more, and no quotation marks, dollars or backslashes")
      .nullable(),
    timeZone: zoneSchema,
  })
  .refine(({ authority, email }) => authority === "own" || email !== null, {
    path: ["email"],
    message: "is asked for by the public authority",
  })
  .refine(({ authority, name }) => authority === "own" || name.includes("."), {
    path: ["name"],
    message: "must be one that the whole world knows, such as handover.example.com",
  });
export type Answers = z.infer<typeof answersSchema>;

export const addressOf = ({ name }: Pick<Answers, "name">): string => `https://${name}`;
