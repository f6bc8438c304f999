import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { ulid } from "ulid";
import type { MessageList } from "../../../api/index.ts";
import { ask } from "../../app/client.ts";
import { careQuery, messagesQuery, queryClient } from "../../app/queries.ts";
import { useMe } from "../../app/useMe.ts";
import { sayState, stateNames } from "../../care/messageWords.ts";
import { ReadyMessage } from "../../care/ReadyMessage.tsx";
import { Button } from "../../ui/Button.tsx";
import { Chip } from "../../ui/Chip.tsx";
import { EmptySheet } from "../../ui/EmptySheet.tsx";
import { Fetched } from "../../ui/Fetched.tsx";
import { fieldLook } from "../../ui/fields.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { readPlain } from "../../ui/readPlain.ts";
import { storeDay } from "../../ui/storeTime.ts";
import { formatClock, formatDayAndYear } from "../../ui/words.ts";

type Message = MessageList["messages"][number];
type State = Message["state"];

/** What wants a hand first. */
const order: readonly State[] = ["failed", "ready", "waiting", "sent", "delivered", "answered", "stopped"];

/** Everything that was written to buyers, from one place: what waits, what failed, what was answered. */
export function MessagesScreen() {
  const [find, setFind] = useState("");
  const [state, setState] = useState<State | "all">("all");
  const [page, setPage] = useState(0);
  const list = useQuery(messagesQuery(find, state, page));
  const { isCarried, isHeld, role } = useMe();
  const show = (next: State | "all") => {
    setState(next);
    setPage(0);
  };
  return (
    <main className="max-w-4xl px-4 pt-5 pb-12 md:px-8">
      <h1 className="text-2xl font-bold">Messages</h1>
      <p className="text-soft">
        {isCarried
          ? "Sent automatically, except in quiet hours. A failed one can be sent again."
          : "No message service is set up: send what is ready from your own phone, and mark it as sent."}
      </p>
      {isHeld && (
        <p className="mt-2 max-w-prose border-l-4 border-amber pl-3">
          <strong>The store lacks what was entered last, and no message goes out.</strong> Stop those that had gone out
          already;{" "}
          {role === "owner" ? (
            <Link to="/store" className="underline">
              you let the rest go on
            </Link>
          ) : (
            "the owner lets the rest go on"
          )}
          .
        </p>
      )}
      <input
        type="search"
        aria-label="Find by boat, person or words"
        placeholder="Find by boat, person or words"
        value={find}
        maxLength={80}
        onChange={(event) => {
          setFind(readPlain(event));
          setPage(0);
        }}
        className={`${fieldLook} mt-3`}
      />
      <Fetched query={list} what="the messages">
        {(data) => (
          <>
            <div role="radiogroup" aria-label="Which messages" className="mt-3 flex flex-wrap gap-2">
              <Chip isPicked={state === "all"} onPick={() => show("all")}>
                All <span className="num">{sum(data.states)}</span>
              </Chip>
              {order.map((each) => (
                <Chip
                  key={each}
                  isPicked={state === each}
                  isUrgent={each === "failed" && (data.states.failed ?? 0) > 0}
                  onPick={() => show(each)}
                >
                  {stateNames[each]} <span className="num">{data.states[each] ?? 0}</span>
                </Chip>
              ))}
            </div>
            <List data={data} />
            <Pages page={page} data={data} onPage={setPage} />
          </>
        )}
      </Fetched>
    </main>
  );
}

const sum = (states: MessageList["states"]) => Object.values(states).reduce((total, n) => total + n, 0);

function List({ data }: { data: MessageList }) {
  if (data.messages.length === 0) return <EmptySheet>No such message. They are written from the call list.</EmptySheet>;
  return (
    <ul aria-label="Messages" className="mt-4 border-t border-ink">
      {data.messages.map((message) => (
        <Line key={message.id} message={message} />
      ))}
    </ul>
  );
}

const refresh = async () => {
  await queryClient.invalidateQueries({ queryKey: ["all-messages"] });
  void queryClient.invalidateQueries({ queryKey: careQuery.queryKey });
  void queryClient.invalidateQueries({ queryKey: ["messages"] });
};

function Line({ message }: { message: Message }) {
  const { boat, boatName, serial, recipient, text, at, answer, kind, state, reach, optOut } = message;
  const params = { boat, message: message.id };
  // One id for one wish, however often it is pressed.
  const [id] = useState(() => ulid());
  const again = useMutation({ mutationFn: () => ask("sendAgain", { params, body: { id } }), onSuccess: refresh });
  const stop = useMutation({ mutationFn: () => ask("stopMessage", { params }), onSuccess: refresh });
  const error = again.error ?? stop.error;
  const isOpen = state === "failed" || state === "stopped" || state === "ready" || state === "waiting";
  const cannot = optOut ? "They do not want messages." : reach === "" ? "No phone is known for them." : null;
  return (
    <li className="border-b border-rule py-3">
      <p className="flex flex-wrap items-baseline gap-x-3">
        <strong className={state === "failed" ? "text-magenta" : ""}>{sayState(message)}</strong>
        <span className="min-w-0 break-words font-semibold">{recipient}</span>
        <Link to={`/boats/${boat}`} className="underline">
          {boatName} #{serial}
        </Link>
        <span className="num ml-auto text-soft">
          {formatDayAndYear(storeDay(at))}, {formatClock(Date.parse(at))}
        </span>
      </p>
      <figure className="mt-1">
        <figcaption className="text-sm text-soft">
          {kind === "call" ? "What was said" : "Word for word, as they read it"}
        </figcaption>
        <blockquote className="border-l-4 border-rule pl-3 break-words">{text}</blockquote>
      </figure>
      {answer !== null && <p className="mt-1 font-semibold">Answer: {answer}</p>}
      {isOpen && cannot !== null && (
        <p className="mt-1 text-magenta">
          ▲ {cannot}{" "}
          <Link to={`/boats/${boat}`} className="underline">
            Open the boat
          </Link>
        </p>
      )}
      {state === "ready" && !optOut && <ReadyMessage boat={boat} message={message} onSent={refresh} />}
      {isOpen && (
        <p className="mt-2 flex flex-wrap items-center gap-3">
          {(state === "failed" || state === "stopped") && (
            <Button
              disabled={again.isPending || again.isSuccess || cannot !== null}
              aria-label={`Send again to ${recipient}`}
              onClick={() => again.mutate()}
            >
              {again.isSuccess ? "Sent again" : "Send again"}
            </Button>
          )}
          {(state === "waiting" || state === "ready") && (
            <Button
              disabled={stop.isPending}
              aria-label={`Do not send it to ${recipient}`}
              onClick={() => stop.mutate()}
            >
              Do not send it
            </Button>
          )}
          {reach !== "" && <span className="text-soft">goes to {reach}</span>}
        </p>
      )}
      {error !== null && <ErrorNotice error={error} />}
    </li>
  );
}

interface PagesProps {
  readonly page: number;
  readonly data: MessageList;
  readonly onPage: (page: number) => void;
}

function Pages({ page, data, onPage }: PagesProps) {
  const last = Math.max(0, Math.ceil(data.found / data.pageSize) - 1);
  if (last === 0) return null;
  return (
    <nav aria-label="Pages" className="mt-3 flex items-center gap-3">
      <Button disabled={page === 0} onClick={() => onPage(page - 1)}>
        Newer
      </Button>
      <span className="num">
        {page + 1} of {last + 1}
      </span>
      <Button disabled={page === last} onClick={() => onPage(page + 1)}>
        Older
      </Button>
    </nav>
  );
}
