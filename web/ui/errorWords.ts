import type { ErrorCode } from "../../api/index.ts";
import { isLocalDate, type LocalDate } from "../../core/dates/index.ts";
import { Refused } from "../app/client.ts";
import { formatDayAndYear, formatMinuteOfDay } from "./words.ts";

type Facts = Readonly<Record<string, unknown>>;
type Wording = (facts: Facts) => string;

const firstIssue = (facts: Facts) => {
  const issue = (facts.issues as { path: string; message: string }[] | undefined)?.[0];
  return issue === undefined ? "" : ` ${issue.path === "" ? "" : `${issue.path}: `}${issue.message}.`;
};

/** A day among the facts; whatever else stands there as it is. */
const dayOf = (value: unknown) =>
  isLocalDate(String(value)) ? formatDayAndYear(String(value) as LocalDate) : String(value);

/** What went wrong, why, and the way out, for every code the server may answer with. */
export const errorWords: Record<ErrorCode | "no-signal", Wording> = {
  "invalid-input": (facts) => `This cannot be stored as it is.${firstIssue(facts)}`,
  "malformed-json": () => "What was sent arrived broken. Try again.",
  "too-large": (facts) => `Too large to send: the limit is ${String(facts.limit)}. Send less at a time.`,
  "not-a-photo": () => "This is no photo that can be read. Take a JPEG, PNG or WebP picture.",
  "not-a-document": () => "This is no PDF and no plain text. Save it as one of them, or take a photo of it.",
  "not-json": () => "What was sent is not in the form the server reads. Reload the page.",
  "not-found": (facts) =>
    `There is no ${String(facts.what)} "${String(facts.id)}". It may have been removed; go back to Today.`,
  "sign-in-needed": () => "You are signed out. Sign in to go on; what you marked is kept on this tablet.",
  "wrong-sign-in": () => "Name and password do not match. Check both and try again.",
  "too-many-tries": (facts) =>
    `Too many wrong tries. Wait ${Math.ceil(Number(facts.waitS) / 60)} min, or ask the owner for a new password.`,
  "too-fast": (facts) => `This is asked too often from here. Wait ${String(facts.waitS)} s and try again.`,
  "second-needed": () => "This account wants the code of its authenticator, or one of its recovery codes.",
  "wrong-code": () => "This code is not right, or was used already. Check it and try again.",
  "second-missing": () => "The owner wants a second step at your sign-in. Turn it on under Your account first.",
  "wrong-password": () => "This is not your password. Type it again.",
  "weak-password": (facts) =>
    ({
      short: `A password has at least ${String(facts.least)} characters. A few words in a row are easy to type.`,
      common: "This password is among those that are tried first. Take a few words of your own in a row.",
      own: "A password must not be your name or the store's with a little added. Take a few words in a row.",
    })[String(facts.why)] ?? "This password is too easy to guess.",
  "login-taken": (facts) => `Somebody signs in as "${String(facts.login)}" already. Choose another name.`,
  "code-ended": () => "This code has been used, taken back, or is too old. Ask the owner for a new one.",
  "last-owner": () => "The store needs one owner. Make somebody else owner first.",
  "set-up-done": () => "This store has an owner already. Sign in.",
  "not-allowed": (facts) =>
    `Your role (${String(facts.role)}) may not do this. Ask one of: ${(facts.admits as string[] | undefined)?.join(", ")}.`,
  "wrong-origin": () => "This page was opened from another address. Open Ravik at its own address.",
  sealed: () => "This handover is signed and locked. Add a note to the record instead.",
  "hours-fall": (facts) =>
    `${String(facts.got)} h does not fit: ${String(facts.before)} h was read on ${dayOf(facts.on)}. Correct it, or say why.`,
  "hours-leap": (facts) =>
    `${String(facts.got)} h is ${Number(facts.perDay).toFixed(0)} h a day since ${String(facts.before)} h on ${dayOf(facts.on)}. Correct it, or say why.`,
  "run-known": (facts) =>
    `This run is logged already: ${dayOf(facts.date)}, ${formatMinuteOfDay(Number(facts.startMin))}, ${String(facts.minutes)} min, by ${String(facts.by)}. Nothing was added.`,
  "before-delivery": (facts) =>
    `${dayOf(facts.got)} is before the boat was handed over (${dayOf(facts.inService)}). Choose that day or later.`,
  "pack-used": (facts) =>
    `${String(facts.boats)} boats still use this pack, ${String(facts.first)} first of them. Give them another on their boat sheet, then remove it.`,
  "slot-closed": (facts) =>
    `The workshop does not work on ${String(facts.got)}${facts.why === "" ? "" : ` (${String(facts.why)})`}. Choose another day, or change its hours under Workshop.`,
  "opted-out": () => "They have asked not to be written to. Ring them, or change it in their contact.",
  "no-owner-page": () =>
    "This boat was handed over before this store kept records, so it has no owner's page. Leave the address out.",
  "no-address": () =>
    "This server does not know where it is reached, so no address can be made. Set RAVIK_ADDRESS where the server is started.",
  "message-differs": () => "Under this number another message was sent already. Nothing was sent; open the list anew.",
  "date-ahead": (facts) => `${String(facts.got)} is after today (${String(facts.today)}). Choose today or earlier.`,
  "not-delivered": () => "This boat has not been handed over yet. Hours are read when the handover is closed.",
  "entry-differs": () => "This mark was stored before with other content. Reload the walk.",
  "not-your-entry": () => "These marks were made by another person. They are sent when that person signs in here.",
  "wrong-delivery": () => "This mark belongs to another handover. Reload the walk.",
  "unknown-topic": () => "This boat no longer has that topic. Reload the walk.",
  "unknown-ref": () => "What this refers to is not on the record yet. Try again in a moment.",
  "unknown-snapshot": () => "What this walk was to go on with is no longer there. Reload the walk and choose again.",
  "not-yours-to-undo": () => "A signature can be taken back only on the tablet it was given on, by whoever held it.",
  "no-signature": () => "A dot is no signature. Sign with your name.",
  "needs-date": () => "Say by which day it will be fixed.",
  "photo-differs": () => "The photo arrived otherwise than it was sent. Take it again.",
  "unknown-store": (facts) =>
    `It was sealed by ${String(facts.store)}, a store not known here. Look at whose it is, then import it.`,
  busy: () => "The server has too much to do just now. Try again in a moment.",
  cycle: () => "Some topics wait for each other in a circle, so there is no order. Mend them in the library.",
  "message-gone": (facts) =>
    facts.state === undefined
      ? "It is not where it was any more. Reload the list."
      : `It is ${String(facts.state)} by now. Reload the list.`,
  "braces-differ": ({ wanted = [] }) =>
    (wanted as string[]).length === 0
      ? "There are braces in it that the English text does not have. Take them out."
      : `It must have the same braces as the English text: ${(wanted as string[]).map((name) => `{${name}}`).join(", ")}.`,
  "topic-needed": (facts) =>
    `"${String(facts.neededBy)}" comes after this topic. Change that one first, then remove this.`,
  "topic-merged": (facts) =>
    `"${String(facts.topic)}" is now part of "${String(facts.into)}". Change that topic instead.`,
  "not-empty": (facts) => `There is already a ${String(facts.what)} "${String(facts.id)}". Choose another number.`,
  "rig-changed": () =>
    "Somebody else has saved this boat since you opened it. Your changes are kept here; load theirs, then make yours again.",
  "template-shipped": () => "This template ships with Ravik and stays as it is. Save yours under another name.",
  "link-ended": (facts) =>
    `This address has ended. Ask ${facts.store === undefined ? "the yard" : String(facts.store)} for a new one${facts.phone === undefined || facts.phone === "" ? "" : `: ${String(facts.phone)}`}. Your record is safe with them.`,
  "not-sealed": () => "This handover is not signed yet. It can be taken elsewhere once it is sealed.",
  "first-format": () =>
    "This record was sealed in the first format, whose seal is over the names themselves. Nothing can be struck from it.",
  "not-a-bundle": (facts) => `This is not a handover that can be taken in: ${String(facts.reason)}.`,
  "already-here": () => "This handover is in the store already. Find its boat by the hull number.",
  unexpected: () => "The server made a mistake and has logged it. Try again; what you marked is kept.",
  "no-signal": () =>
    "No answer from the yard. What you mark in a walk is kept on this tablet; anything else was not sent: try again when there is signal.",
};

/** Any error in words. */
export function describeError(error: unknown): string {
  if (!(error instanceof Refused)) return "Something went wrong on this page. Reload it; what you marked is kept.";
  const wording = errorWords[error.code as ErrorCode] ?? errorWords.unexpected;
  return wording(error.facts);
}
