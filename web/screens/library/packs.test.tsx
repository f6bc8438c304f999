// @vitest-environment jsdom
import { cleanup, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { PackSheet } from "../../../api/index.ts";
import { boatCarePack, breakInPacks, servicePacks } from "../../../content/index.ts";
import { answerWith, refuse, showScreen } from "../../testing/answerWith.tsx";
import { PacksScreen } from "./PacksScreen.tsx";

vi.mock("../../ui/LazyChart.tsx", () => ({
  LazyChart: ({ says }: { says: string }) => <div role="img" aria-label={says} />,
}));

const line = <P,>(pack: P) => ({ pack, isShipped: true, isChanged: false, version: 1 });
const sheet: PackSheet = { breakIn: breakInPacks.map(line), service: [...servicePacks, boatCarePack].map(line) };
const user = userEvent.setup();
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const show = (role = "service") => {
  const asked = answerWith({
    packs: () => sheet,
    setPack: () => ({ done: true as const }),
    removePack: () => refuse("pack-used", { pack: "x", boats: 2, first: "Wending 23" }),
  });
  showScreen([{ path: "/library/packs", element: <PacksScreen /> }], "/library/packs", role);
  return asked;
};
const type = async (label: string, text: string) => {
  await user.clear(screen.getByLabelText(label));
  await user.type(screen.getByLabelText(label), text);
};
const open = (name: RegExp) => user.click(screen.getByRole("button", { name }));
type Body = {
  kind: string;
  pack: {
    id: string;
    title: string;
    totalH: number;
    phases: { fromH: number; toH: number; maxShare: number }[];
    items: { id: string; everyH?: number }[];
  };
};

describe("break-in packs", () => {
  it("draw their limits anew as one types, and are saved with their stages joined", async () => {
    const asked = show();
    expect(await screen.findByRole("img", { name: /0 to 1 h, at most 3,000 rpm/ })).toBeTruthy();
    await type("At most, percent, stage 1", "40");
    expect(screen.getByRole("img", { name: /0 to 1 h, at most 2,400 rpm/ })).toBeTruthy();
    await type("Ends at, stage 1", "1,5");
    expect(screen.getByRole("img", { name: /1.5 to 2 h/ })).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Save it" }));
    const { kind, pack } = asked.find(({ name }) => name === "setPack")!.body as Body;
    expect([kind, pack.phases[0]!.maxShare, pack.phases[1]!.fromH]).toEqual(["breakin", 0.4, 1.5]);
  });

  it("say when stages contradict each other", async () => {
    show();
    await screen.findByRole("img", { name: /Limits over/ });
    await type("Ends at, stage 1", "3");
    expect(screen.getByRole("alert").textContent).toContain("contradict each other");
  });

  it("gain and lose stages, and are copied under a name of their own", async () => {
    const asked = show();
    await user.click(await screen.findByRole("button", { name: "Another stage" }));
    expect(screen.getByRole("img", { name: /10 to 15 h/ })).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Take stage 1 out" }));
    expect(screen.getByRole("img", { name: /0 to 2 h/ })).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Copy it as our own" }));
    const { pack } = asked.find(({ name }) => name === "setPack")!.body as Body;
    expect(pack.id).toMatch(/^own-/);
    expect(pack.title).toBe("Stepped, ten hours, our own");
    expect(pack.totalH).toBe(15);
  });

  it("are renamed in place; without a name they are not saved", async () => {
    const asked = show();
    const name = await screen.findByLabelText<HTMLInputElement>("Name of the pack");
    await user.clear(name);
    expect(screen.getByRole<HTMLButtonElement>("button", { name: "Save it" }).disabled).toBe(true);
    await user.type(name, "Ours, ten hours");
    await user.click(screen.getByRole("button", { name: "Save it" }));
    const { pack } = asked.find((each) => each.name === "setPack")!.body as Body;
    expect([pack.id, pack.title]).toEqual([breakInPacks[0]!.id, "Ours, ten hours"]);
  });

  it("are for reading only where the role does not write", async () => {
    show("technician");
    await screen.findByRole("img", { name: /Limits over/ });
    expect(screen.getByLabelText("Ends at, stage 1").hasAttribute("disabled")).toBe(true);
    expect(screen.queryByRole("button", { name: "Save it" })).toBeNull();
  });
});

describe("a pack of the store's own", () => {
  /** A server that keeps what it is given. */
  const serve = () => {
    let own = {
      pack: { ...breakInPacks[0]!, id: "own-1", title: "Ours" },
      isShipped: false,
      isChanged: false,
      version: 1,
    };
    let isThere = true;
    answerWith({
      packs: () => ({ ...sheet, breakIn: [...sheet.breakIn, ...(isThere ? [own] : [])] }),
      setPack: (asked) => {
        own = { ...own, pack: (asked.body as unknown as { pack: typeof own.pack }).pack, version: own.version + 1 };
        isThere = true;
        return { done: true as const };
      },
      removePack: () => {
        isThere = false;
        return { done: true as const };
      },
    });
    showScreen([{ path: "/library/packs", element: <PacksScreen /> }], "/library/packs", "service");
  };
  const pick = async () => user.click(await screen.findByRole("button", { name: /^Ours/ }));

  it("says that it was saved, also once its editor has begun anew, and not when it is changed again", async () => {
    serve();
    await pick();
    await user.type(await screen.findByLabelText("Name of the pack"), " now");
    await user.click(screen.getByRole("button", { name: "Save it" }));
    expect(await screen.findByText("Saved.")).toBeTruthy();
    await user.type(screen.getByLabelText("Name of the pack"), "!");
    expect(screen.queryByText("Saved.")).toBeNull();
  });

  it("comes back at a touch when it was taken away, and the screen is not left empty meanwhile", async () => {
    serve();
    await pick();
    await user.click(await screen.findByRole("button", { name: "Remove it" }));
    expect(await screen.findByText("The pack “Ours” was taken away.")).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>("Name of the pack").value).toBe(breakInPacks[0]!.title);
    await user.click(screen.getByRole("button", { name: "Undo" }));
    await vi.waitFor(() => expect(screen.getByLabelText<HTMLInputElement>("Name of the pack").value).toBe("Ours"));
  });
});

describe("service packs", () => {
  it("take numbers away and put them in, work and parts a line each, items in and out", async () => {
    const asked = show();
    const list = await screen.findByRole("region", { name: "Service" });
    await user.click(within(list).getByRole("button", { name: /^Outboard: first at 20/ }));
    await open(/^200 h or two years/);
    await user.clear(screen.getByLabelText("Every hours, 200 h or two years"));
    expect(screen.getByText("Every 24 months.")).toBeTruthy();
    await open(/^First service/);
    await type("First at hours, First service", "25");
    await type("Parts, First service", "Oil{Enter}{Enter}Filter");
    await type("Price, First service", "$312,40");
    await type("Days it may be early, First service", "30");
    expect(screen.getByText("1.5 h of work, €312.40, up to 30 days early")).toBeTruthy();
    expect(screen.getByText("Once, at 25 h or 12 months, whichever comes first.")).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Another item" }));
    await user.click(screen.getByRole("button", { name: "Take out 300 h or three years" }));
    await user.click(screen.getByRole("button", { name: "Save it" }));
    const { kind, pack } = asked.find(({ name }) => name === "setPack")!.body as Body;
    expect(kind).toBe("service");
    expect(pack.items[0]).toMatchObject({
      firstH: 25,
      parts: ["Oil", "Filter"],
      priceCents: 31_240,
      earlyDays: 30,
    });
    expect(pack.items.find(({ id }) => id === "plugs")!.everyH).toBeUndefined();
    expect(pack.items.map(({ id }) => id)).not.toContain("pump");
    expect(pack.items.at(-1)!.id).toMatch(/^item-/);
  });

  it("turn to a season and back, and say what cannot be", async () => {
    const asked = show();
    const list = await screen.findByRole("region", { name: "Service" });
    await user.click(within(list).getByRole("button", { name: /^Outboard: first at 20/ }));
    await open(/^100 h or yearly/);
    await user.selectOptions(screen.getByLabelText("Falls due, 100 h or yearly"), "once in a season");
    await user.selectOptions(screen.getByLabelText("From, 100 h or yearly"), "November");
    await user.selectOptions(screen.getByLabelText("Until the end of, 100 h or yearly"), "February");
    expect(screen.getByText("Once a year, November to February, whatever the hours.")).toBeTruthy();
    expect(screen.queryByRole("alert")).toBeNull();
    await user.selectOptions(screen.getByLabelText("Falls due, 100 h or yearly"), "by hours and months");
    await user.clear(screen.getByLabelText("Every months, 100 h or yearly"));
    expect(screen.getByRole("alert").textContent).toContain('"100 h or yearly" never falls due');
    expect(screen.getByRole("button", { name: "Save it" })).toHaveProperty("disabled", true);
    await type("Every hours, 100 h or yearly", "150");
    await user.click(screen.getByRole("button", { name: "Save it" }));
    const { pack } = asked.find(({ name }) => name === "setPack")!.body as Body;
    const item = pack.items.find(({ id }) => id === "annual")!;
    expect([item.everyH, "season" in item ? item.season : undefined]).toEqual([150, undefined]);
  });
});
