import {
  type AnswerOf,
  addresses,
  type BodyOf,
  type EndpointName,
  type Endpoints,
  type ErrorBody,
  type ParamsOf,
} from "../../api/index.ts";
import { getFront } from "./held.ts";

/** An answer that is not the one asked for. `code` is one of the server's, or "no-signal" when none came at all. */
export class Refused extends Error {
  override readonly name = "Refused";
  readonly code: string;
  readonly facts: ErrorBody["error"];

  constructor(facts: ErrorBody["error"]) {
    super(facts.code);
    this.code = facts.code;
    this.facts = facts;
  }
}

/** A question without an answer for so long counts as no signal: a weak one must not hold up what waits behind it. */
const askTimeoutMs = 30_000;
const sendTimeoutMs = 180_000;

export interface Ask<N extends EndpointName> {
  readonly params?: ParamsOf<Endpoints[N]>;
  readonly body?: BodyOf<Endpoints[N]>;
  readonly query?: Readonly<Record<string, string>>;
  /** The server's own answer or none; otherwise one saved earlier stands in where the server is slow or out of reach. */
  readonly anew?: boolean;
  /** In the session of another person whom this shared tablet holds; else of whoever is in front. */
  readonly as?: string;
}

/** On a shared tablet: in whose session this is asked. */
function nameWho(as: string | undefined): Record<string, string> {
  const who = as ?? getFront();
  return who === null ? {} : { "Ravik-Person": who };
}

const withQuery = (address: string, query: Readonly<Record<string, string>>) => {
  const search = new URLSearchParams(query).toString();
  return search === "" ? address : `${address}?${search}`;
};

export function addressOf(name: EndpointName, params: Record<string, string> = {}): string {
  return addresses[name].path.replace(/:(\w+)/g, (_, key: string) => encodeURIComponent(params[key]!));
}

/** Asks the server one described endpoint, by its name. Throws Refused. */
export async function ask<N extends EndpointName>(
  name: N,
  { params, body, query = {}, anew = false, as }: Ask<N> = {},
): Promise<AnswerOf<Endpoints[N]>> {
  const { method } = addresses[name];
  let response: Response;
  try {
    response = await fetch(withQuery(addressOf(name, params), query), {
      method,
      credentials: "same-origin",
      signal: AbortSignal.timeout(askTimeoutMs),
      ...(method === "GET"
        ? { headers: nameWho(as), cache: anew ? "no-cache" : "default" }
        : { headers: { ...nameWho(as), "Content-Type": "application/json" }, body: JSON.stringify(body ?? {}) }),
    });
  } catch {
    throw new Refused({ code: "no-signal" });
  }
  return readAnswer(response);
}

/** Asks for a paper that is made of what is sent. Throws Refused. */
export async function askPaper<N extends "labelledPack">(
  name: N,
  params: ParamsOf<Endpoints[N]>,
  body: BodyOf<Endpoints[N]>,
): Promise<Blob> {
  let response: Response;
  try {
    response = await fetch(addressOf(name, params), {
      method: addresses[name].method,
      credentials: "same-origin",
      signal: AbortSignal.timeout(sendTimeoutMs),
      headers: { ...nameWho(undefined), "Content-Type": "application/json" },
      body: JSON.stringify(body),
    });
  } catch {
    throw new Refused({ code: "no-signal" });
  }
  return response.ok ? response.blob() : readAnswer(response);
}

type UploadName = "setPhoto" | "setFile" | "setOwnerPhoto" | "previewBundle" | "importBundle";

/** Sends a file as it is, to one of the endpoints that take one. Throws Refused. */
export async function sendFile<N extends UploadName>(
  name: N,
  params: ParamsOf<Endpoints[N]>,
  file: Blob,
  usualType: string,
  { query = {}, as }: { readonly query?: Readonly<Record<string, string>>; readonly as?: string } = {},
): Promise<AnswerOf<Endpoints[N]>> {
  let response: Response;
  try {
    response = await fetch(withQuery(addressOf(name, params), query), {
      method: addresses[name].method,
      credentials: "same-origin",
      signal: AbortSignal.timeout(sendTimeoutMs),
      headers: { ...nameWho(as), "Content-Type": file.type === "" ? usualType : file.type },
      body: file,
    });
  } catch {
    throw new Refused({ code: "no-signal" });
  }
  return readAnswer(response);
}

/** Sends a photo under the id it has here; the server makes it fit to keep. Throws Refused. */
export const sendPhoto = (photo: string, file: Blob, as?: string) =>
  sendFile("setPhoto", { photo }, file, "image/jpeg", as === undefined ? {} : { as });

async function readAnswer<T>(response: Response): Promise<T> {
  let value: unknown;
  try {
    value = JSON.parse(await response.text());
  } catch {
    throw new Refused({ code: "unexpected" });
  }
  if (!response.ok) throw new Refused((value as ErrorBody).error ?? { code: "unexpected" });
  return value as T;
}
