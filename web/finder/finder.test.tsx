// @vitest-environment jsdom
import { cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import { faultContent, rigTemplates } from "../../content/index.ts";
import { buildFaultModel, type Findings } from "../../core/faults/index.ts";
import { regions } from "../../core/region/index.ts";
import { tellPlain } from "../ui/tell.ts";
import { FaultFinder } from "./Finder.tsx";
import { sayFindings } from "./useFinder.ts";

afterEach(cleanup);
const open = (phone: string | null = "555 0142", begin: Findings | null = null) => {
  const onPart = vi.fn();
  render(
    <FaultFinder
      rig={rigTemplates["wending-23"]}
      content={faultContent}
      phone={phone}
      begin={begin}
      onPart={onPart}
      end={(finder) => <p data-testid="end">{sayFindings(finder, tellPlain)}</p>}
    />,
  );
  return { user: userEvent.setup(), onPart };
};
const say = async (user: ReturnType<typeof userEvent.setup>, words: string, label: RegExp) => {
  await user.type(screen.getByLabelText(/What (else )?does not work\?/, { selector: "input" }), words);
  await user.click(screen.getByRole("button", { name: label }));
};

describe("the finder", () => {
  it("goes from a few words to the cause and how it is mended, and tells what was found", async () => {
    const { user, onPart } = open();
    await say(user, "won't start", /Does not work: Port engine starts/);
    expect(screen.getByText(/Look at the red clip under the throttle/)).toBeTruthy();
    const shown = onPart.mock.lastCall![0];
    expect(rigTemplates["wending-23"].parts.find(({ id }) => id === shown)!.kind).toBe("lanyard");
    await user.click(screen.getByRole("button", { name: "No" }));
    expect(screen.getByRole("heading", { name: "Kill lanyard out or half in" })).toBeTruthy();
    expect(screen.getByText(/Push it on until it clicks/)).toBeTruthy();
    expect(screen.getByTestId("end").textContent).toBe(
      "Port engine starts: no. Looked at: Kill lanyard out or half in: at fault.",
    );
  });

  it("what the words say beside is taken up, and stands to be taken back", async () => {
    const { user } = open();
    await say(user, "beeps but won't start", /Does not work: Port engine starts/);
    expect(screen.getByRole("button", { name: /^Take back: Port engine: beeps and gauges wake, good/ })).toBeTruthy();
    // The key is heard: its battery switch is on.
    expect(screen.queryByText("Port engine switch off")).toBeNull();
  });

  it("of answers that contradict each other names each, to be given anew", async () => {
    const horn = buildFaultModel(rigTemplates["wending-23"], faultContent, regions.us).functions.find(
      ({ id }) => id === "horn-sounds",
    )!;
    const components = Object.fromEntries(horn.needs.map((id) => [id, true]));
    const { user } = open("555 0142", { functions: { "horn-sounds": false }, components });
    const alert = screen.getByRole("alert");
    expect(alert.textContent).toContain("Not all of these answers can be right");
    expect(within(alert).getAllByRole("button")).toHaveLength(horn.needs.length + 1);
    await user.click(within(alert).getAllByRole("button")[1]!);
    expect(screen.queryByRole("alert")).toBeNull();
    expect(screen.getByRole("heading", { name: "What it may be" })).toBeTruthy();
  });

  it("what was answered can be taken back, what cannot be told is left aside", async () => {
    const { user } = open();
    await say(user, "horn", /Does not work: Horn sounds/);
    const first = screen.getByText(/\?$/, { selector: "section[aria-labelledby=next] p" }).textContent;
    await user.click(screen.getByRole("button", { name: "Can't tell" }));
    expect(screen.getByText(/\?$/, { selector: "section[aria-labelledby=next] p" }).textContent).not.toBe(first);
    await user.click(screen.getByRole("button", { name: /^Take back: Horn sounds/ }));
    expect(screen.queryByRole("heading", { name: "What it may be" })).toBeNull();
  });

  it("another light that burns clears what they share", async () => {
    const { user } = open();
    await say(user, "stern light out", /Does not work: Anchor light burns/);
    const names = () =>
      within(screen.getByRole("region", { name: "What it may be" }))
        .getAllByRole("listitem")
        .map((each) => each.textContent);
    expect(names().join()).toMatch(/House/);
    const [asked] = screen.getAllByRole("radiogroup", { name: /lights?/i });
    await user.click(within(asked!).getByRole("radio", { name: "Yes" }));
    expect(names().join()).not.toMatch(/House switch|Breaker Lights/);
  });

  it("what cannot wait comes first, with the yard's number; where an owner should not go on, it says so", async () => {
    const { user } = open();
    await user.type(
      screen.getByLabelText("What does not work?", { selector: "input" }),
      "strong gas smell at the stern",
    );
    await user.click(screen.getByRole("button", { name: /First: Smell of fuel/ }));
    expect(screen.getByText(/Touch no switch and no key/)).toBeTruthy();
    expect(screen.getByText(/Nobody looks for the leak/)).toBeTruthy();
    expect(screen.getByRole("link", { name: "Call the yard, 555 0142" }).getAttribute("href")).toBe("tel:5550142");
    await user.click(screen.getByRole("button", { name: "It is safe: find the cause" }));
    await say(user, "hard to steer", /Does not work: The boat steers/);
    await user.click(screen.getByRole("button", { name: "No" }));
    expect(screen.getByText(/leave this one to the yard/)).toBeTruthy();
    expect(screen.getByRole("link", { name: /Call the yard/ })).toBeTruthy();
  });

  it("hands an owner no test lamp and no cowl, and says before a try what it takes; the yard looks, and knows that it is the yard's", async () => {
    const look = () => screen.queryByText(/\?$/, { selector: "section[aria-labelledby=next] p" })?.textContent ?? null;
    const listLooks = async (phone: string | null) => {
      const { user } = open(phone);
      await say(user, "horn", /Does not work: Horn sounds/);
      const looks: string[] = [];
      let forYard = 0;
      for (let next = look(); next !== null; next = look()) {
        looks.push(next);
        if (screen.queryByText(/Do not ask the person on the phone/) !== null) forYard += 1;
        await user.click(screen.getByRole("button", { name: "Can't tell" }));
      }
      cleanup();
      return { looks, forYard };
    };
    const [owner, yard] = [await listLooks("555 0142"), await listLooks(null)];
    expect(owner.looks.length).toBeGreaterThan(3);
    expect(owner.looks.join()).not.toMatch(/test lamp/);
    expect(owner.forYard).toBe(0);
    expect(yard.looks.join()).toMatch(/test lamp/);
    expect(yard.forYard).toBeGreaterThan(0);
    const { user } = open();
    await say(user, "won't start", /Does not work: Port engine starts/);
    const asks = screen.getByRole("region", { name: "Does something else work" });
    expect(within(asks).getAllByText(/^▲ .*(Smell of fuel|neutral)/).length).toBeGreaterThan(0);
  });

  it("says so where nothing of that name is aboard, and where answers cannot both be", async () => {
    const { user } = open(null);
    await user.type(screen.getByLabelText("What does not work?", { selector: "input" }), "zeppelin");
    expect(screen.getByText(/Nothing of that name on this boat/)).toBeTruthy();
    await user.clear(screen.getByLabelText("What does not work?", { selector: "input" }));
    await say(user, "bilge pump dead", /Does not work: Bilge pump runs by its switch/);
    for (let i = 0; i < 12 && screen.queryByRole("alert") === null; i++)
      await user.click(screen.getByRole("button", { name: "Yes" }));
    expect(screen.getByRole("alert").textContent).toContain("Not all of these answers can be right");
  });
});
