import type { ErrorCode } from "../../api/index.ts";
import { isLocalDate, type LocalDate } from "../../core/dates/index.ts";
import type { Tell } from "../../core/language/index.ts";
import { Refused } from "../app/client.ts";
import { plainReader, type Reader } from "./tell.ts";
import { formatDayAndYear, formatTime } from "./words.ts";

type Facts = Readonly<Record<string, unknown>>;
type Wording = (facts: Facts, tell: Tell, reader: Reader) => string;

const firstIssue = (facts: Facts) => {
  const issue = (facts.issues as { path: string; message: string }[] | undefined)?.[0];
  return issue === undefined ? "" : ` ${issue.path === "" ? "" : `${issue.path}: `}${issue.message}.`;
};

/** A day among the facts; whatever else stands there as it is. */
const dayOf = (value: unknown, reader: Reader) =>
  isLocalDate(String(value)) ? formatDayAndYear(String(value) as LocalDate, reader) : String(value);

/** What went wrong, why, and the way out, for every code the server may answer with. */
export const errorWords: Record<ErrorCode | "no-signal", Wording> = {
  "invalid-input": (facts, tell) => tell("This cannot be stored as it is.{0}", firstIssue(facts)),
  "malformed-json": (_, tell) => tell("What was sent arrived broken. Try again."),
  "too-large": (facts, tell) => tell("Too large to send: the limit is {0}. Send less at a time.", String(facts.limit)),
  "not-a-photo": (_, tell) => tell("This is no photo that can be read. Take a JPEG, PNG or WebP picture."),
  "not-a-document": (_, tell) =>
    tell("This is no PDF and no plain text. Save it as one of them, or take a photo of it."),
  "not-json": (_, tell) => tell("What was sent is not in the form the server reads. Reload the page."),
  "not-found": (facts, tell) =>
    tell('There is no {0} "{1}". It may have been removed; go back to Today.', String(facts.what), String(facts.id)),
  "sign-in-needed": (_, tell) => tell("You are signed out. Sign in to go on; what you marked is kept on this tablet."),
  "wrong-sign-in": (_, tell) => tell("Name and password do not match. Check both and try again."),
  "too-many-tries": (facts, tell) =>
    tell(
      "Too many wrong tries. Wait {0} min, or ask the owner for a new password.",
      Math.ceil(Number(facts.waitS) / 60),
    ),
  "too-fast": (facts, tell) =>
    tell("This is asked too often from here. Wait {0} s and try again.", String(facts.waitS)),
  "second-needed": (_, tell) => tell("This account wants the code of its authenticator, or one of its recovery codes."),
  "wrong-code": (_, tell) => tell("This code is not right, or was used already. Check it and try again."),
  "second-missing": (_, tell) =>
    tell("The owner wants a second step at your sign-in. Turn it on under Your account first."),
  "pin-needed": (_, tell) =>
    tell("This tablet is shared. Open your name with your PIN to go on; what you marked is kept here."),
  "wrong-pin": (_, tell) => tell("This is not the PIN of this name on this tablet. Sign in with your password."),
  "wrong-password": (_, tell) => tell("This is not your password. Type it again."),
  "weak-password": (facts, tell) =>
    ({
      short: tell(
        "A password has at least {0} characters. A few words in a row are easy to type.",
        String(facts.least),
      ),
      common: tell("This password is among those that are tried first. Take a few words of your own in a row."),
      own: tell("A password must not be your name or the store's with a little added. Take a few words in a row."),
    })[String(facts.why)] ?? tell("This password is too easy to guess."),
  "login-taken": (facts, tell) => tell('Somebody signs in as "{0}" already. Choose another name.', String(facts.login)),
  "code-ended": (_, tell) => tell("This code has been used, taken back, or is too old. Ask the owner for a new one."),
  "last-owner": (_, tell) => tell("The store needs one owner. Make somebody else owner first."),
  "set-up-done": (_, tell) => tell("This store has an owner already. Sign in."),
  "not-allowed": (facts, tell) =>
    tell(
      "Your role ({0}) may not do this. Ask one of: {1}.",
      String(facts.role),
      ((facts.admits as string[] | undefined) ?? []).join(", "),
    ),
  "wrong-origin": (_, tell) => tell("This page was opened from another address. Open Ravik at its own address."),
  sealed: (_, tell) => tell("This handover is signed and locked. Add a note to the record instead."),
  "hours-fall": (facts, tell, reader) =>
    tell(
      "{0} h does not fit: {1} h was read on {2}. Correct it, or say why.",
      String(facts.got),
      String(facts.before),
      dayOf(facts.on, reader),
    ),
  "hours-leap": (facts, tell, reader) =>
    tell(
      "{0} h is {1} h a day since {2} h on {3}. Correct it, or say why.",
      String(facts.got),
      Number(facts.perDay).toFixed(0),
      String(facts.before),
      dayOf(facts.on, reader),
    ),
  "run-known": (facts, tell, reader) =>
    tell(
      "This run is logged already: {0}, {1}, {2} min, by {3}. Nothing was added.",
      dayOf(facts.date, reader),
      formatTime(Number(facts.startMin)),
      String(facts.minutes),
      String(facts.by),
    ),
  "before-delivery": (facts, tell, reader) =>
    tell(
      "{0} is before the boat was handed over ({1}). Choose that day or later.",
      dayOf(facts.got, reader),
      dayOf(facts.inService, reader),
    ),
  "pack-used": (facts, tell) =>
    tell(
      "{0} boats still use this pack, {1} first of them. Give them another on their boat sheet, then remove it.",
      String(facts.boats),
      String(facts.first),
    ),
  "slot-closed": (facts, tell) =>
    facts.why === ""
      ? tell(
          "The workshop does not work on {0}. Choose another day, or change its hours under Workshop.",
          String(facts.got),
        )
      : tell(
          "The workshop does not work on {0} ({1}). Choose another day, or change its hours under Workshop.",
          String(facts.got),
          String(facts.why),
        ),
  "opted-out": (_, tell) => tell("They have asked not to be written to. Call them, or change it in their contact."),
  "no-owner-page": (_, tell) =>
    tell("This boat was handed over before this store kept records, so it has no owner's page. Leave the address out."),
  "no-address": (_, tell) =>
    tell(
      "This store does not know its own address yet, so none can be made for a buyer. Its owner enters it once: More, Store, Where browsers reach Ravik.",
    ),
  "message-differs": (_, tell) =>
    tell("Under this number another message was sent already. Nothing was sent; open the list anew."),
  "date-ahead": (facts, tell) =>
    tell("{0} is after today ({1}). Choose today or earlier.", String(facts.got), String(facts.today)),
  "not-delivered": (_, tell) =>
    tell("This boat has not been handed over yet. Hours are read when the handover is closed."),
  "entry-differs": (_, tell) => tell("This mark was stored before with other content. Reload the walk."),
  "not-your-entry": (_, tell) =>
    tell("These marks were made by another person. They are sent when that person signs in here."),
  "wrong-delivery": (_, tell) => tell("This mark belongs to another handover. Reload the walk."),
  "unknown-topic": (_, tell) => tell("This boat no longer has that topic. Reload the walk."),
  "unknown-ref": (_, tell) => tell("What this refers to is not on the record yet. Try again in a moment."),
  "unknown-snapshot": (_, tell) =>
    tell("What this walk was to go on with is no longer there. Reload the walk and choose again."),
  "not-yours-to-undo": (_, tell) =>
    tell(
      "Only whoever entered it can take this back, or somebody who may close, with a reason. A signature is taken back on the tablet it was given on.",
    ),
  "undo-needs-reason": (_, tell) =>
    tell("Somebody else entered this. Say why it is taken back: the reason goes into the record."),
  "old-form": (_, tell) =>
    tell("This came from an older version of Ravik and cannot stand in this record. Reload the app and sign again."),
  "copied-signature": (_, tell) => tell("This signature is a copy of another one here. Sign by hand."),
  "not-a-buyer": (_, tell) => tell("Only somebody who is named in this handover can sign as its buyer."),
  "no-signature": (_, tell) => tell("A dot is no signature. Sign with your name."),
  "needs-date": (_, tell) => tell("Say by which day it will be fixed."),
  "photo-differs": (_, tell) => tell("The photo arrived otherwise than it was sent. Take it again."),
  "unknown-store": (facts, tell) =>
    tell("It was sealed by {0}, a store not known here. Look at whose it is, then import it.", String(facts.store)),
  busy: (_, tell) => tell("The server has too much to do just now. Try again in a moment."),
  "store-stuck": (facts, tell) =>
    ({
      full: tell(
        "The disk at the store is full: nothing can be stored until somebody there makes room. Try again then.",
      ),
      "read-only": tell(
        "The disk at the store may not be written to just now: nothing can be stored. Try again later.",
      ),
      gone: tell("The store's folder is not where it was: nothing can be stored until somebody there puts it right."),
    })[String(facts.why)] ??
    tell("The disk at the store has a fault: nothing can be stored. Somebody there must look at it."),
  cycle: (_, tell) =>
    tell("Some topics wait for each other in a circle, so there is no order. Mend them in the library."),
  "message-gone": (facts, tell) =>
    facts.state === undefined
      ? tell("It is not where it was any more. Reload the list.")
      : tell("It is {0} by now. Reload the list.", String(facts.state)),
  "braces-differ": ({ wanted = [] }, tell) =>
    (wanted as string[]).length === 0
      ? tell("There are braces in it that the English text does not have. Take them out.")
      : tell(
          "It must have the same braces as the English text: {0}.",
          (wanted as string[]).map((name) => `{${name}}`).join(", "),
        ),
  "topic-needed": (facts, tell) =>
    tell('"{0}" comes after this topic. Change that one first, then remove this.', String(facts.neededBy)),
  "topic-merged": (facts, tell) =>
    tell('"{0}" is now part of "{1}". Change that topic instead.', String(facts.topic), String(facts.into)),
  "not-empty": (facts, tell) =>
    tell('There is already a {0} "{1}". Choose another number.', String(facts.what), String(facts.id)),
  "rig-changed": (_, tell) =>
    tell(
      "Somebody else has saved this boat since you opened it. Your changes are kept here; load theirs, then make yours again.",
    ),
  "template-shipped": (_, tell) =>
    tell("This template ships with Ravik and stays as it is. Save yours under another name."),
  "link-ended": (facts, tell) =>
    tell(
      "This address has ended. Ask {0} for a new one{1}. Your record is safe with them.",
      facts.store === undefined ? "the yard" : String(facts.store),
      facts.phone === undefined || facts.phone === "" ? "" : `: ${String(facts.phone)}`,
    ),
  "boat-resold": (_, tell) =>
    tell("This boat has gone, or is to go, to somebody else. Whoever had it before gets no page of it any more."),
  "no-contact": (_, tell) =>
    tell(
      "There is no number or e-mail of theirs here. Enter it here, then send again; the code and the papers work without.",
    ),
  "not-sealed": (_, tell) => tell("This handover is not signed yet. It can be taken elsewhere once it is sealed."),
  "not-a-bundle": (facts, tell) => tell("This is not a handover that can be taken in: {0}.", String(facts.reason)),
  "unsigned-bundle": (facts, tell) =>
    tell(
      "This file says that {0} sealed it, and bears no signature of theirs. Ask them for it anew.",
      String(facts.store),
    ),
  "not-ours": (_, tell) =>
    tell("This file bears this store's own key, and the store has no such record. A backup brings back what was lost."),
  "already-here": (_, tell) => tell("This handover is in the store already. Find its boat by the hull number."),
  unexpected: (_, tell) => tell("The server made a mistake and has logged it. Try again; what you marked is kept."),
  "no-signal": (_, tell) =>
    tell(
      "No answer from the yard. What you mark in a walk is kept on this tablet; anything else was not sent: try again when there is signal.",
    ),
};

/** Any error in words. */
export function describeError(error: unknown, reader: Reader = plainReader): string {
  if (!(error instanceof Refused))
    return reader.tell("Something went wrong on this page. Reload it; what you marked is kept.");
  const wording = errorWords[error.code as ErrorCode] ?? errorWords.unexpected;
  return wording(error.facts, reader.tell, reader);
}
