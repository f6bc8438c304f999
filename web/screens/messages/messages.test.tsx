// @vitest-environment jsdom
import { cleanup, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { MessageList } from "../../../api/index.ts";
import { answerWith, refuse, showScreen } from "../../testing/answerWith.tsx";
import { MessagesScreen } from "./MessagesScreen.tsx";

const user = userEvent.setup();
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const line = (id: string, change: Partial<MessageList["messages"][number]> = {}): MessageList["messages"][number] => ({
  id,
  recipient: "Ilse Warrender-Featherstonehaugh-Okonkwo",
  text: `Words of ${id}`,
  at: "2026-05-02T08:00:00.000Z",
  kind: "hello",
  state: "sent",
  answer: null,
  boat: "w118",
  boatName: "Wending 23",
  serial: "23118",
  reach: "555 0142",
  optOut: false,
  ...change,
});
const messages = [
  line("a", { state: "failed" }),
  line("b", { state: "waiting" }),
  line("c", { state: "failed", reach: "" }),
  line("d", { state: "answered", answer: "4.2 h" }),
];
const sheet = { messages, found: 4, states: { failed: 2, waiting: 1, answered: 1 }, pageSize: 60 };
const show = () => showScreen([{ path: "/messages", element: <MessagesScreen /> }], "/messages");
const lineOf = (words: string) => within(screen.getByText(words).closest("li")!);

describe("all messages", () => {
  it("stand with what they said word for word, and how many there are of each state", async () => {
    const log = answerWith({ allMessages: () => sheet });
    show();
    expect(await screen.findByRole("radio", { name: "▲ failed 2" })).not.toBeNull();
    expect(lineOf("Words of d").getByText("Answer: 4.2 h")).not.toBeNull();
    await user.click(screen.getByRole("radio", { name: "waiting 1" }));
    await user.type(screen.getByRole("searchbox"), "ilse");
    await waitFor(() =>
      expect(Object.fromEntries(log.at(-1)!.query)).toEqual({ state: "waiting", find: "ilse", page: "0" }),
    );
  });

  it("are sent again once, however often it is pressed, and not where they cannot arrive", async () => {
    const log = answerWith({ allMessages: () => sheet, sendAgain: () => line("e") });
    show();
    const button = await screen.findByText("Words of a").then(() => lineOf("Words of a").getByRole("button"));
    await user.dblClick(button);
    const sent = log.filter(({ name }) => name === "sendAgain").map(({ body }) => (body as { id: string }).id);
    expect(new Set(sent).size).toBe(1);
    expect(lineOf("Words of c").getByText(/No phone is known/)).not.toBeNull();
    expect((lineOf("Words of c").getByRole("button") as HTMLButtonElement).disabled).toBe(true);
  });

  it("are stopped while they wait; one that has gone meanwhile is said to have", async () => {
    answerWith({ allMessages: () => sheet, stopMessage: () => refuse("message-gone", { state: "sent" }) });
    show();
    await screen.findByText("Words of b");
    await user.click(lineOf("Words of b").getByRole("button", { name: /^Do not send it/ }));
    expect(await lineOf("Words of b").findByText(/It is sent by now/)).not.toBeNull();
  });
});
