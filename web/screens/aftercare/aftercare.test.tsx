// @vitest-environment jsdom
import "fake-indexeddb/auto";
import { cleanup, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it } from "vitest";
import type { CareLine, MessageLine } from "../../../api/index.ts";
import { messageTemplates } from "../../../content/index.ts";
import { type LocalDate, toInstant } from "../../../core/dates/index.ts";
import { careQuery, queryClient } from "../../app/queries.ts";
import { syncQueue } from "../../offline/useSync.ts";
import { answerWith, showScreen } from "../../testing/answerWith.tsx";
import { boat, callListOf, line, today } from "../../testing/careStage.ts";
import { fillMessage } from "./CallSheet.tsx";
import { CareScreen } from "./CareScreen.tsx";

const user = userEvent.setup();
afterEach(() => {
  cleanup();
});

describe("fillMessage", () => {
  const fill = (id: string, change: Partial<CareLine> = {}) =>
    fillMessage(messageTemplates.find((each) => each.id === id)!.text, line(change), {
      store: "A yard",
      phone: "555 0142",
    });

  it("puts in first names, boat, what and when, and leaves the address for the server", () => {
    const reasons: CareLine["reasons"] = [
      {
        reason: "service",
        says: "First service falls due",
        date: "2026-06-01",
        isOverdue: false,
        range: null,
        isAnyDay: false,
      },
    ];
    expect(fill("service", { reasons })).toBe(
      "Hello Ilse and Piet, this is A yard: first service of your Wending 23 falls due about Mon 1 Jun. Shall we book a date for you? Answer here or call 555 0142.",
    );
    expect(fill("ask-hours")).toContain("{link}");
  });
  it("says since when something is past due, with its year", () => {
    const reasons: CareLine["reasons"] = [
      {
        reason: "service",
        says: "First service is past due",
        date: "2025-05-03",
        isOverdue: true,
        range: null,
        isAnyDay: false,
      },
    ];
    expect(fill("service", { reasons })).toContain("first service of your Wending 23 has been due since 3 May 2025.");
  });
  it("asks for an answer instead where there is no page", () => {
    expect(fill("ask-hours", { delivery: null })).not.toContain("{link}");
    expect(fill("ask-hours", { delivery: null })).toContain("Just answer here.");
  });
  it("does so whatever words a store has for the sentence with the address", () => {
    const said = fillMessage("Hello {buyers}. Type it in here, please: {link}", line({ delivery: null }), {
      store: "A yard",
      phone: "555 0142",
    });
    expect(said).toBe("Hello Ilse and Piet. Just answer here.");
  });
  it("speaks of what is owed when that is the reason", () => {
    const reasons: CareLine["reasons"] = [
      {
        reason: "promise-late",
        says: "Promise overdue: table leg",
        date: "2026-06-01",
        isOverdue: true,
        range: null,
        isAnyDay: false,
      },
    ];
    expect(fill("promise", { reasons })).toContain("what we owe you for your Wending 23: table leg");
  });
});

describe("the call list", () => {
  const show = (lines: CareLine[], role = "service") => {
    const sent: MessageLine[] = [];
    const asked = answerWith({
      callList: () => callListOf(lines),
      boatMessages: () => ({ messages: sent }),
      sendMessage: ({ body }) => {
        const { id, kind, text } = body as { id: string; kind: string; text: string };
        const message: MessageLine = {
          id,
          kind,
          text,
          recipient: "Ilse Warrender and Piet Warrender",
          at: `${today}T10:00:00.000Z`,
          state: kind === "call" ? "answered" : "sent",
          answer: null,
        };
        sent.unshift(message);
        return message;
      },
      setContact: () => ({ done: true as const }),
      setMessageTexts: () => ({ done: true as const }),
      boat: () => boat,
      setBooking: () => ({ done: true as const }),
    });
    showScreen([{ path: "/aftercare", element: <CareScreen /> }], "/aftercare", role);
    return asked;
  };

  it("never changes whose sheet is open by itself: what was sent is confirmed by name, and they stay when the list moves on", async () => {
    const lines = [line(), line({ boat: "b2", buyers: "Dov Anselm", boatName: "Sedge 18" })];
    show(lines);
    const sheet = () => screen.getByRole("region", { name: /Ilse/ });
    await user.click(
      within(await screen.findByRole("region", { name: /Ilse/ })).getByRole("button", { name: "Send it" }),
    );
    expect(await within(sheet()).findByText(/^Sent to Ilse/)).toBeTruthy();
    // Written to, they drop out of the list, and somebody new comes first.
    lines.splice(0, 2, line({ boat: "b9", buyers: "Ada New" }), lines[1]!);
    await queryClient.invalidateQueries({ queryKey: careQuery.queryKey });
    await screen.findByText(/Ada New/);
    expect(within(sheet()).getByText(/^Sent to Ilse/)).toBeTruthy();
    expect(screen.getByText(/^Nothing is open with Ilse/)).toBeTruthy();
    await user.click(screen.getByRole("button", { name: /Dov Anselm/ }));
    expect(screen.getByRole("region", { name: /Dov Anselm/ })).toBeTruthy();
    expect(screen.queryByText(/^Nothing is open/)).toBeNull();
  });

  it("where nothing carries messages, one is taken up whole, sent by hand and marked as sent", async () => {
    const message: MessageLine = {
      id: "m1",
      kind: "ask-hours",
      text: "Your page: {link}",
      recipient: "Ilse Warrender",
      at: `${today}T10:00:00.000Z`,
      state: "ready",
      answer: null,
    };
    const asked = answerWith({
      callList: () => callListOf([line()]),
      boatMessages: () => ({ messages: [message] }),
      prepareMessage: () => ({
        text: "Your page: https://yard.test/o/abc",
        phone: "555 0100",
        email: "ilse@example.test",
        subject: "Brakmoor Landing Marine: Sandpiper 24",
        address: "https://yard.test/o/abc",
      }),
      markSent: () => ({ done: true as const }),
    });
    showScreen([{ path: "/aftercare", element: <CareScreen /> }], "/aftercare", "service");
    const list = within(await screen.findByRole("list", { name: "Messages and calls" }));
    expect(await list.findByText("not sent yet")).toBeTruthy();
    await user.click(list.getByRole("button", { name: "Open it to send" }));
    expect((await list.findByTestId("ready-text")).textContent).toBe("Your page: https://yard.test/o/abc");
    expect(list.getByRole("link", { name: "Text message" }).getAttribute("href")).toBe(
      "sms:5550100?body=Your%20page%3A%20https%3A%2F%2Fyard.test%2Fo%2Fabc",
    );
    expect(list.getByRole("link", { name: "E-mail" }).getAttribute("href")).toMatch(
      /^mailto:ilse%40example\.test\?subject=Brakmoor%20Landing%20Marine%3A%20Sandpiper%2024&body=/,
    );
    expect(list.getByRole("img", { name: "The address of their page as a code to scan" })).toBeTruthy();
    await user.click(list.getByRole("button", { name: "Mark as sent" }));
    expect(asked.map(({ name }) => name)).toEqual(expect.arrayContaining(["prepareMessage", "markSent"]));
  });

  it("says who needs nobody, when it is all", async () => {
    show([]);
    expect(await screen.findByText(/Nobody needs you this week/)).toBeTruthy();
  });

  it("opens the first, writes in its words, and keeps what was sent in sight", async () => {
    const asked = show([
      line(),
      line({
        boat: "b2",
        buyers: "Dov Anselm",
        reasons: [
          {
            reason: "no-hours",
            says: "No hours reported for 60 days; about 20 h run since",
            date: "2026-04-16",
            isOverdue: false,
            range: null,
            isAnyDay: false,
          },
        ],
      }),
    ]);
    const beside = await screen.findByRole("region", { name: /Ilse/ });
    expect(screen.getByRole("group", { name: "Boats on the call list" }).textContent).toContain(
      "14.0 h reported, 22 likely",
    );
    await user.click(within(beside).getByRole("button", { name: "Send it" }));
    expect(await within(beside).findByText(/Shall we book a date for you/, { selector: "li span" })).toBeTruthy();
    expect(asked.find(({ name }) => name === "sendMessage")?.body).toMatchObject({ kind: "service", withLink: false });
    await user.click(screen.getByRole("button", { name: /Dov Anselm/ }));
    const other = await screen.findByRole("region", { name: /Dov Anselm/ });
    await user.click(within(other).getByRole("button", { name: "Send it" }));
    expect(asked.filter(({ name }) => name === "sendMessage").at(-1)?.body).toMatchObject({
      kind: "ask-hours",
      withLink: true,
    });
  });

  it("keeps a call, and sends nothing to who does not want it", async () => {
    const asked = show([line({ contact: { name: "", phone: "", email: "", optOut: true } })]);
    const beside = await screen.findByRole("region", { name: /Ilse/ });
    expect(within(beside).getByRole("button", { name: "Send it" }).hasAttribute("disabled")).toBe(true);
    expect(within(beside).getByText(/They do not want messages/)).toBeTruthy();
    await user.type(within(beside).getByLabelText("What was said on the phone"), "Comes on Tuesday{Enter}");
    expect(asked.find(({ name }) => name === "sendMessage")?.body).toMatchObject({
      kind: "call",
      text: "Comes on Tuesday",
    });
  });

  it("parts what is due from what only lacks hours and from who named a day; a question stands in full and is answered there", async () => {
    syncQueue.setUser({ id: "ines", name: "Ines Marr" });
    const reason = (what: CareLine["reasons"][number]["reason"], says: string, date: LocalDate) =>
      ({ reason: what, says, date, isOverdue: false, range: null, isAnyDay: false }) as const;
    const asks = {
      delivery: "d1",
      ref: "01ARZ3NDEKTSV4RRFFQ69G5FAV",
      text: "Which oil do I buy?",
      since: toInstant(0),
    };
    show([
      line({ questions: [asks], reasons: [reason("question", "They ask: Which oil do I buy?", "2026-06-14")] }),
      line({ boat: "b2", buyers: "Dov Anselm", reasons: [reason("no-hours", "No hours for 60 days", "2026-04-16")] }),
      line({
        boat: "b3",
        buyers: "Ada New",
        callBack: { on: "2026-07-01", note: "after the holidays", by: "ines" },
        reasons: [reason("call-back", "Call back: after the holidays", "2026-07-01")],
      }),
    ]);
    const groups = within(await screen.findByRole("group", { name: "Boats on the call list" }));
    const peopleOf = (title: string) => groups.getByRole("list", { name: `Boats: ${title}` }).textContent;
    expect(peopleOf("This week")).toContain("Ilse");
    expect(peopleOf("Only hours are missing")).toContain("Dov Anselm");
    expect(peopleOf("Call back later")).toContain("1 Jul 2026");
    const beside = within(screen.getByRole("region", { name: /Ilse/ }));
    const question = within(beside.getByRole("list", { name: "What they ask" }));
    await user.click(question.getByRole("button", { name: "Answer: Which oil do I buy?" }));
    await user.type(question.getByLabelText("Your answer (they see it)"), "The one on the card{Enter}");
    expect(syncQueue.listOf("d1")).toMatchObject([{ kind: "settle", ref: asks.ref, note: "The one on the card" }]);
  });

  it("asks for a number where there is none and keeps it; with a call goes the day they named", async () => {
    const asked = show([line({ contact: { name: "", phone: "", email: "", optOut: false } })]);
    const beside = within(await screen.findByRole("region", { name: /Ilse/ }));
    expect(beside.getByRole("button", { name: "Send it" })).toHaveProperty("disabled", true);
    expect(beside.getByText(/There is no number to send it to/)).toBeTruthy();
    await user.type(beside.getByLabelText(/^Phone/), "555 0188{Enter}");
    expect(asked.find(({ name }) => name === "setContact")?.body).toEqual({
      ...{ name: "", phone: "555 0188", email: "", optOut: false },
    });
    await user.type(beside.getByLabelText("Call back on"), "2026-07-01");
    await user.type(beside.getByLabelText("What was said on the phone"), "Away until July{Enter}");
    expect(asked.find(({ name }) => name === "sendMessage")?.body).toMatchObject({
      kind: "call",
      callBackOn: "2026-07-01",
    });
  });

  it("books what comes up next, with its hours of work", async () => {
    const asked = show([line()]);
    await user.click(await screen.findByRole("button", { name: "Book a slot" }));
    const form = await screen.findByRole("form", { name: "Book a slot" });
    expect(form.textContent).toContain("3.0 h of work");
    await user.click(within(form).getByRole("checkbox", { name: /starboard/ }));
    expect(form.textContent).toContain("1.5 h of work");
    await user.click(within(form).getByRole("button", { name: "Book it" }));
    expect(asked.find(({ name }) => name === "setBooking")?.body).toMatchObject({
      boat: "b1",
      date: "2026-06-29",
      startMin: 540,
      labourH: 1.5,
      items: [{ scope: "port", item: "first-service", title: "First service" }],
      state: "booked",
    });
  });

  it("shows what the server does by itself, what failed with why, and the store's own words", async () => {
    const asked = show([line()]);
    await user.click(await screen.findByText(/Automatic messages: 2 planned/));
    expect(screen.getByText(/failed after 5 tries: nobody answers/)).toBeTruthy();
    await user.click(screen.getByText("Our words for messages"));
    const words = screen.getByLabelText("Words: How is it going?");
    await user.clear(words);
    expect(screen.getByRole("button", { name: "Save our words" }).hasAttribute("disabled")).toBe(true);
    await user.type(words, "Good day");
    await user.click(screen.getByRole("button", { name: "Save our words" }));
    expect(
      (asked.find(({ name }) => name === "setMessageTexts")!.body as { texts: Record<string, string> }).texts.hello,
    ).toBe("Good day");
  });
});
