import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import type { CallList, CareLine } from "../../../api/index.ts";
import type { LocalDate } from "../../../core/dates/index.ts";
import { formatFirstNames } from "../../../core/walk/index.ts";
import { ask } from "../../app/client.ts";
import { boatQuery, careQuery, queryClient, workshopQuery } from "../../app/queries.ts";
import { useMe } from "../../app/useMe.ts";
import { BookForm } from "../../booking/BookForm.tsx";
import { ContactFields } from "../../care/ContactFields.tsx";
import { sayState, sayWhatBecame } from "../../care/messageWords.ts";
import { ReadyMessage } from "../../care/ReadyMessage.tsx";
import { syncQueue } from "../../offline/useSync.ts";
import { OwedRow } from "../../owed/OwedRow.tsx";
import { Button } from "../../ui/Button.tsx";
import { Chip } from "../../ui/Chip.tsx";
import { DateInput } from "../../ui/DateInput.tsx";
import { fillFalls, fillTemplate } from "../../ui/fillTemplate.ts";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { readPlain } from "../../ui/readPlain.ts";
import { storeDay } from "../../ui/storeTime.ts";
import { useFormId } from "../../ui/useIds.ts";
import { afterComma, formatLongDay } from "../../ui/words.ts";

const templateFor: Record<CareLine["reasons"][number]["reason"], string> = {
  "first-contact": "hello",
  "break-in-ends": "break-in-end",
  service: "service",
  "promise-late": "promise",
  "no-hours": "ask-hours",
  question: "hello",
  "call-back": "hello",
};
const linkPlace = "{link}";
/** The sentence that leads to the address, in whatever words. */
const linkSentence = / ?[^.?]*\{link\}\.?/;

/** A template in the words of this boat. One without an owner's page asks for an answer instead. */
export function fillMessage(
  text: string,
  line: Pick<CareLine, "buyers" | "boatName" | "reasons" | "delivery">,
  { store, phone }: Pick<CallList, "store" | "phone">,
): string {
  const service = line.reasons.find(({ reason }) => reason === "service") ?? line.reasons[0];
  const promise = line.reasons.find(({ reason }) => reason === "promise-late");
  const names: Record<string, string> = {
    buyers: formatFirstNames(line.buyers),
    store,
    phone,
    boat: `your ${line.boatName}`,
    item:
      promise?.says.replace(/^.*: /, "") ??
      service?.says.replace(/ (falls due|is (likely )?past due)$/, "").toLowerCase() ??
      "the service",
    ...fillFalls(service ?? { date: null, range: null, isAnyDay: false }, service?.isOverdue ?? false),
    week: "your choice",
  };
  const filled = fillTemplate(text, names);
  return line.delivery === null ? filled.replace(linkSentence, " Just answer here.") : filled;
}

/** One boat's people: why, what to write, a call to note, a slot to book, what went before. */
export function CallSheet({ line, list }: { line: CareLine; list: CallList }) {
  const me = useMe();
  const [first] = line.reasons;
  const [template, setTemplate] = useState(templateFor[first!.reason]);
  const wording = (id: string) => fillMessage(list.templates.find((each) => each.id === id)!.text, line, list);
  const [text, setText] = useState(() => wording(template));
  const [isBooking, setBooking] = useState(false);
  const refresh = async () => {
    await queryClient.invalidateQueries({ queryKey: careQuery.queryKey });
    await queryClient.invalidateQueries({ queryKey: ["messages", line.boat] });
  };
  const whyNot = sayWhyNot(line.contact, text, me.isCarried);
  const [id, renewId] = useFormId();
  const send = useMutation({
    mutationFn: (body: { kind: string; text: string; withLink: boolean; callBackOn?: LocalDate }) =>
      ask("sendMessage", { params: { boat: line.boat }, body: { id, ...body } }),
    onSuccess: () => {
      renewId();
      return refresh();
    },
  });
  return (
    <section aria-label={`${line.boatName}${afterComma(line.buyers)}`} className="border-t border-ink pt-3">
      <WhoItIs line={line} onChanged={refresh} />
      {line.questions.map((question) => (
        <Question key={question.ref} question={question} onAnswered={refresh} />
      ))}
      <Writing
        templates={list.templates.filter(({ id }) => id !== "earlier")}
        template={template}
        text={text}
        onTemplate={(id) => {
          setTemplate(id);
          setText(wording(id));
        }}
        onText={setText}
      />
      <p className="mt-2 flex flex-wrap gap-2">
        <Button
          look="primary"
          disabled={send.isPending || whyNot !== null || text.trim() === ""}
          aria-describedby={whyNot === null ? undefined : "why-not"}
          onClick={() => send.mutate({ kind: template, text: text.trim(), withLink: text.includes(linkPlace) })}
        >
          {me.isCarried ? "Send it" : "Make it ready"}
        </Button>
        <Button onClick={() => setBooking(!isBooking)}>{line.booking === null ? "Book a slot" : "Another slot"}</Button>
      </p>
      {whyNot !== null && (
        <p id="why-not" className="mt-1 text-amber">
          ◷ {whyNot}
        </p>
      )}
      {send.error !== null && <ErrorNotice error={send.error} />}
      {send.data !== undefined && (
        <p role="status" className="mt-2 border-l-4 border-helm pl-3 break-words">
          {sayWhatBecame(send.data, me.isHeld)}
        </p>
      )}
      {isBooking && (
        <BookForm
          boat={line.boat}
          onDone={async () => {
            setBooking(false);
            await refresh();
            await queryClient.invalidateQueries({ queryKey: workshopQuery.queryKey });
            await queryClient.invalidateQueries({ queryKey: boatQuery(line.boat).queryKey });
          }}
        />
      )}
      <CallNote
        isBusy={send.isPending}
        onNote={(said, callBackOn, onKept) =>
          send.mutate(
            { kind: "call", text: said, withLink: false, ...(callBackOn === null ? {} : { callBackOn }) },
            { onSuccess: onKept },
          )
        }
      />
      <History boat={line.boat} onSent={refresh} />
    </section>
  );
}

/** Why a message cannot go, before it is tried; null when it can. */
function sayWhyNot({ optOut, phone, email }: CareLine["contact"], text: string, isCarried: boolean): string | null {
  if (optOut) return "They do not want messages. A call can be noted.";
  if (phone === "" && (isCarried || email === ""))
    return "There is no number to send it to. Enter it above, and it stays with the boat.";
  return text.includes(linkPlace) && text.trim() === linkPlace ? "Say what it is about beside the address." : null;
}

/** What they asked, in their words, to be answered right here. */
function Question({
  question,
  onAnswered,
}: {
  question: CareLine["questions"][number];
  onAnswered: () => Promise<void>;
}) {
  const { delivery, ref, text } = question;
  useEffect(
    () =>
      syncQueue.onSent((sent) => {
        if (sent === delivery) void onAnswered();
      }),
    [delivery, onAnswered],
  );
  const owed = { ref, what: "question", text, severity: null, owner: null, due: null, message: null, topic: null };
  return (
    <ul aria-label="What they ask" className="my-2 border-l-4 border-helm bg-panel px-3">
      <OwedRow delivery={delivery} owed={{ ...owed, what: "question" }}>
        <p className="num text-sm text-soft">asked {formatLongDay(storeDay(question.since))}</p>
      </OwedRow>
    </ul>
  );
}

function WhoItIs({ line, onChanged }: { line: CareLine; onChanged: () => Promise<void> }) {
  const setContact = useMutation({
    mutationFn: (contact: CareLine["contact"]) => ask("setContact", { params: { boat: line.boat }, body: contact }),
    onSuccess: onChanged,
  });
  return (
    <>
      <h2 className="text-lg font-bold break-words">
        {line.buyers}{" "}
        <Link to={`/boats/${line.boat}`} className="font-text text-base font-normal underline">
          {line.boatName} {line.serial}
        </Link>
      </h2>
      {line.callBack !== null && (
        <p className="text-amber">
          ◷ Call back on {formatLongDay(line.callBack.on)}: {line.callBack.note}
        </p>
      )}
      {line.booking !== null && (
        <p className="font-semibold">
          Booked for {formatLongDay(line.booking.date)}
          {line.booking.items.length > 0 && `: ${line.booking.items.map(({ title }) => title).join(", ")}`}
        </p>
      )}
      <ContactFields key={line.boat} contact={line.contact} onSave={(contact) => setContact.mutate(contact)} />
      {setContact.error !== null && <ErrorNotice error={setContact.error} />}
      <p className="num text-soft">
        <label className="inline-flex min-h-11 items-center gap-2 text-ink">
          <input
            type="checkbox"
            className="size-6 accent-helm"
            checked={line.contact.optOut}
            onChange={(event) => setContact.mutate({ ...line.contact, optOut: event.target.checked })}
          />
          does not want messages
        </label>
      </p>
    </>
  );
}

interface WritingProps {
  readonly templates: CallList["templates"];
  readonly template: string;
  readonly text: string;
  readonly onTemplate: (id: string) => void;
  readonly onText: (text: string) => void;
}

function Writing({ templates, template, text, onTemplate, onText }: WritingProps) {
  return (
    <>
      <div className="flex flex-wrap gap-2" role="radiogroup" aria-label="What to write">
        {templates.map(({ id, title }) => (
          <Chip key={id} isPicked={template === id} onPick={() => onTemplate(id)}>
            {title}
          </Chip>
        ))}
      </div>
      <label className="mt-2 block">
        <span className="text-sm text-soft">Message</span>
        <textarea
          aria-label="Message"
          value={text}
          maxLength={600}
          rows={4}
          onChange={(event) => onText(readPlain(event))}
          className="mt-0.5 w-full rounded-md border border-soft bg-panel px-3 py-2"
        />
      </label>
      {text.includes(linkPlace) && <p className="text-sm text-soft">{linkPlace} becomes the address of their page.</p>}
    </>
  );
}

interface CallNoteProps {
  readonly isBusy: boolean;
  readonly onNote: (said: string, callBackOn: LocalDate | null, onKept: () => void) => void;
}

function CallNote({ isBusy, onNote }: CallNoteProps) {
  const [note, setNote] = useState("");
  const [callBackOn, setCallBackOn] = useState<LocalDate | null>(null);
  const clear = () => {
    setNote("");
    setCallBackOn(null);
  };
  return (
    <form
      className="mt-3 flex flex-wrap gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (note.trim() !== "") onNote(note.trim(), callBackOn, clear);
      }}
    >
      <input
        aria-label="What was said on the phone"
        placeholder="Called them: what was said"
        value={note}
        maxLength={300}
        onChange={(event) => setNote(readPlain(event))}
        className="min-h-11 min-w-0 flex-1 basis-48 rounded-md border border-soft bg-panel px-3 placeholder:text-soft"
      />
      <label className="flex min-h-11 items-center gap-2 text-soft">
        Call back on
        <DateInput
          value={callBackOn}
          onDate={setCallBackOn}
          className="num min-h-11 rounded-md border border-soft bg-panel px-2 text-ink"
        />
      </label>
      <Button type="submit" aria-label="Save the call" disabled={isBusy}>
        Save
      </Button>
    </form>
  );
}

function History({ boat, onSent }: { boat: string; onSent: () => Promise<void> }) {
  const history = useQuery({
    queryKey: ["messages", boat],
    queryFn: () => ask("boatMessages", { params: { boat } }),
  });
  return (
    <ul aria-label="Messages and calls" className="mt-3">
      {(history.data?.messages ?? []).slice(0, 6).map((message) => (
        <li key={message.id} className="border-b border-rule py-1.5 text-sm">
          <span className="num text-soft">{formatLongDay(storeDay(message.at))}</span>{" "}
          <strong className={message.state === "failed" ? "text-magenta" : ""}>{sayState(message)}</strong>{" "}
          <span className="break-words">{message.text}</span>
          {message.answer !== null && <span className="block font-semibold">Answer: {message.answer}</span>}
          {message.state === "ready" && <ReadyMessage boat={boat} message={message} onSent={onSent} />}
        </li>
      ))}
    </ul>
  );
}
