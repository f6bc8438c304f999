import type { z } from "zod";
import type { Role } from "../core/walk/roles.ts";
import type { AuditKind } from "./peopleSchemas.ts";

/** One thing the server can be asked. Server and web derive checks, types and the OpenAPI document from it. */
export interface Endpoint {
  readonly method: "GET" | "POST" | "PUT" | "DELETE";
  /** With `:name` for each key of `params`. */
  readonly path: string;
  readonly summary: string;
  /** Who may ask; "public" needs no session. */
  readonly admits: readonly Role[] | "public";
  /** It may be asked before somebody of whom the owner wants a second factor has one. */
  readonly withoutSecond?: true;
  /** On a shared tablet it may be asked while its session is not open: it opens or ends it. */
  readonly withoutPin?: true;
  /** On a shared tablet it may be sent while another is in front, each part under the word of its author's PIN key (core/pin). */
  readonly takesProof?: true;
  /** Noted under the name of whoever did it, as this kind. */
  readonly audit?: AuditKind;
  /** What of its body is not noted: it says who somebody is, and the log is kept for long. */
  readonly unsaid?: readonly string[];
  readonly params: z.ZodType<Record<string, string>>;
  readonly query: z.ZodType<Record<string, unknown>>;
  readonly body: z.ZodType | null;
  /** The largest JSON body taken, where it is more than usual. */
  readonly bodyLimit?: "5mb";
  /** The body is a file of these media types, not JSON; `body` is null then. */
  readonly upload?: readonly string[];
  /** Of an answer that is a file: its media type. */
  readonly file?: string;
  /** A paper that is printed for whoever asks: each may have a few under way. */
  readonly isPaper?: true;
  /** Null when the answer is not JSON but a file. */
  readonly answer: z.ZodType | null;
}

export const endpoint = <E extends Endpoint>(description: E): E => description;

export type ParamsOf<E extends Endpoint> = z.output<E["params"]>;
export type QueryOf<E extends Endpoint> = z.output<E["query"]>;
export type BodyOf<E extends Endpoint> = E["body"] extends z.ZodType ? z.output<E["body"]> : undefined;
export type AnswerOf<E extends Endpoint> = E["answer"] extends z.ZodType ? z.output<E["answer"]> : undefined;
