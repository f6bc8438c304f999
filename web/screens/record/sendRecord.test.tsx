// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, it, vi } from "vitest";
import type { Boat, Delivery, MessageLine } from "../../../api/index.ts";
import { answerWith, refuse, showScreen } from "../../testing/answerWith.tsx";
import { SendRecord } from "./SendRecord.tsx";

const user = userEvent.setup();
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const delivery = { id: "d-1", boat: "b-1" } as Delivery;
const message = (state: MessageLine["state"]): MessageLine => ({
  id: "m1",
  kind: "record",
  recipient: "Ilse Warrender",
  text: "Your record: {link}",
  at: "2026-06-13T10:00:00.000Z",
  state,
  answer: null,
});
const show = (role = "delivery") => showScreen([{ path: "/", element: <SendRecord delivery={delivery} /> }], "/", role);

it("goes out with one touch where the store has what carries it, and says to whom", async () => {
  const asked = answerWith({ sendRecord: () => message("sent") });
  show();
  await user.click(screen.getByRole("button", { name: "Send them their record" }));
  expect(await screen.findByText("Sent to Ilse Warrender.")).toBeTruthy();
  expect(asked).toMatchObject([{ name: "sendRecord", params: { delivery: "d-1" } }]);
  expect(screen.queryByRole("button", { name: "Open it to send" })).toBeNull();
});

it("where nothing carries it, is opened right there, to be sent by hand, scanned, and marked as sent", async () => {
  answerWith({
    sendRecord: () => message("ready"),
    prepareMessage: () => ({
      text: "Your record: https://yard.test/o/abc",
      subject: "Brakmoor Landing Marine: Sandpiper 24",
      phone: "",
      email: "ilse@example.test",
      address: "https://yard.test/o/abc",
    }),
    markSent: () => ({ done: true as const }),
  });
  show();
  await user.click(screen.getByRole("button", { name: "Send them their record" }));
  await user.click(await screen.findByRole("button", { name: "Open it to send" }));
  expect((await screen.findByRole("link", { name: "E-mail" })).getAttribute("href")).toContain("subject=Brakmoor");
  expect(screen.queryByRole("link", { name: "Text message" })).toBeNull();
  expect(screen.getByRole("img", { name: /as a code to scan/ })).toBeTruthy();
  await user.click(screen.getByRole("button", { name: "Mark as sent" }));
  expect(await screen.findByRole("button", { name: "Send them their record" })).toBeTruthy();
});

it("asks for the number on the spot where there is none", async () => {
  let phone = "";
  const asked = answerWith({
    sendRecord: () => (phone === "" ? refuse("no-contact") : message("sent")),
    boat: () => ({ contact: { name: "", phone, email: "", optOut: false } }) as Boat,
    setContact: ({ body }) => {
      phone = (body as { phone: string }).phone;
      return { done: true as const };
    },
  });
  show();
  await user.click(screen.getByRole("button", { name: "Send them their record" }));
  expect((await screen.findByRole("alert")).textContent).toMatch(/no number or e-mail/);
  await user.type(await screen.findByRole("textbox", { name: /phone|number/i }), "555 0142");
  await user.click(screen.getByRole("button", { name: /Save/ }));
  await user.click(await screen.findByRole("button", { name: "Send them their record" }));
  expect(await screen.findByText("Sent to Ilse Warrender.")).toBeTruthy();
  expect(asked.filter(({ name }) => name === "sendRecord")).toHaveLength(2);
});

it("is not for somebody who walks nobody", () => {
  answerWith({});
  show("technician");
  expect(screen.queryByRole("button")).toBeNull();
});
