import {
  type AnswerOf,
  addresses,
  type BodyOf,
  type EndpointName,
  type Endpoints,
  type ErrorBody,
  type ParamsOf,
} from "../../api/index.ts";
import { signOpening } from "../../core/pin/index.ts";
import { forgetPin, getFront, getSeed, nameAsked, setFront, setOpen } from "./held.ts";

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
  /** Their word for it, given while they were in front. */
  readonly proof?: string | null;
}

/** On a shared tablet: in whose session this is asked, and their word for what is sent while another is in front. */
const nameWho = (as: string | undefined, proof: string | null = null): Record<string, string> => ({
  ...nameAsked(as),
  ...(proof === null ? {} : { "Ravik-Proof": proof }),
});

let proving: Promise<boolean> | null = null;
/** Opens the session of whoever is in front at the server, by what their PIN unlocked here. False where it cannot be. Throws Refused. */
export function proveFront(): Promise<boolean> {
  proving ??= prove().finally(() => {
    proving = null;
  });
  return proving;
}
async function prove(): Promise<boolean> {
  const [id, seed] = [getFront(), getSeed()];
  if (id === null) return false;
  // What a password opened lasts for a day's work; then it is the PIN's turn.
  if (seed === null) return lockFront();
  const { challenge } = await askOnce("beginPin", { as: id });
  try {
    const { open } = await askOnce("openPin", { as: id, body: { challenge, proof: signOpening(seed, challenge) } });
    setOpen(id, open);
  } catch (error) {
    if (!(error instanceof Refused) || error.code !== "wrong-pin") throw error;
    // The server knows another PIN of theirs here, or none: only their password tells.
    forgetPin(id);
    return lockFront();
  }
  return true;
}

function lockFront(): false {
  setFront(null);
  return false;
}

/** Once more where the server did not know yet that a PIN was given here: without signal it could not be told. */
async function withPin<T>(as: string | undefined, go: () => Promise<T>): Promise<T> {
  try {
    return await go();
  } catch (error) {
    const isOfFront = as === undefined || as === getFront();
    if (!isOfFront || !(error instanceof Refused) || error.code !== "pin-needed" || !(await proveFront())) throw error;
    return go();
  }
}

const withQuery = (address: string, query: Readonly<Record<string, string>>) => {
  const search = new URLSearchParams(query).toString();
  return search === "" ? address : `${address}?${search}`;
};

export function addressOf(name: EndpointName, params: Record<string, string> = {}): string {
  return addresses[name].path.replace(/:(\w+)/g, (_, key: string) => encodeURIComponent(params[key]!));
}

/** Asks the server one described endpoint, by its name. Throws Refused. */
export const ask = <N extends EndpointName>(name: N, asked: Ask<N> = {}): Promise<AnswerOf<Endpoints[N]>> =>
  withPin(asked.as, () => askOnce(name, asked));

async function askOnce<N extends EndpointName>(
  name: N,
  { params, body, query = {}, anew = false, as, proof }: Ask<N> = {},
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
        : { headers: { ...nameWho(as, proof), "Content-Type": "application/json" }, body: JSON.stringify(body ?? {}) }),
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
export const sendFile = <N extends UploadName>(
  name: N,
  params: ParamsOf<Endpoints[N]>,
  file: Blob,
  usualType: string,
  sending: Sending = {},
): Promise<AnswerOf<Endpoints[N]>> => withPin(sending.as, () => sendOnce(name, params, file, usualType, sending));

interface Sending {
  readonly query?: Readonly<Record<string, string>>;
  readonly as?: string;
  readonly proof?: string | null;
}

async function sendOnce<N extends UploadName>(
  name: N,
  params: ParamsOf<Endpoints[N]>,
  file: Blob,
  usualType: string,
  { query = {}, as, proof }: Sending,
): Promise<AnswerOf<Endpoints[N]>> {
  let response: Response;
  try {
    response = await fetch(withQuery(addressOf(name, params), query), {
      method: addresses[name].method,
      credentials: "same-origin",
      signal: AbortSignal.timeout(sendTimeoutMs),
      headers: { ...nameWho(as, proof), "Content-Type": file.type === "" ? usualType : file.type },
      body: file,
    });
  } catch {
    throw new Refused({ code: "no-signal" });
  }
  return readAnswer(response);
}

/** Sends a photo under the id it has here; the server makes it fit to keep. Throws Refused. */
export const sendPhoto = (photo: string, file: Blob, as?: string, proof: string | null = null) =>
  sendFile("setPhoto", { photo }, file, "image/jpeg", as === undefined ? {} : { as, proof });

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
