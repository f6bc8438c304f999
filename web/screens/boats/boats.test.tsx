// @vitest-environment jsdom
import { cleanup, render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { AnswerOf, Endpoints, TemplateLine } from "../../../api/index.ts";
import { rigTemplates } from "../../../content/index.ts";
import { type BoatStage, boatStages } from "../../../core/care/index.ts";
import type { LocalDate } from "../../../core/dates/index.ts";
import { rigSchema } from "../../../core/rig/index.ts";
import { readStock, type StockRow } from "../../../core/stock/index.ts";
import { answerWith, refuse, showScreen } from "../../testing/answerWith.tsx";
import { StockRows } from "../stock/StockRows.tsx";
import { BoatsScreen } from "./BoatsScreen.tsx";
import { NewBoatScreen } from "./NewBoatScreen.tsx";

type BoatRow = AnswerOf<Endpoints["boats"]>["boats"][number];
const user = userEvent.setup();
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const templates: TemplateLine[] = Object.entries(rigTemplates).map(([id, rig]) => ({
  id,
  name: rig.model,
  maker: rig.maker,
  model: rig.model,
  family: rig.family,
  loaM: rig.loaM,
  beamM: rig.beamM,
  isShipped: true,
}));
const row = (change: Partial<BoatRow>): BoatRow => ({
  id: "w1",
  name: "Wending 23",
  hull: "SLW23118K526",
  stock: "",
  color: "",
  family: "centre-console",
  loaM: 7,
  beamM: 2.55,
  engines: 2,
  buyers: "",
  inService: null,
  nextDelivery: null,
  due: null,
  stage: "in-stock",
  owed: 0,
  ...change,
});
const dueOn = (date: LocalDate): NonNullable<BoatRow["due"]> => ({
  targetH: 20,
  hoursDate: null,
  calendarDate: date,
  dueDate: date,
  by: "calendar",
  range: null,
  state: "ahead",
  isAnyDay: false,
});
const listOf = (boats: BoatRow[], boatsInAll = boats.length) => {
  const stages = Object.fromEntries(
    boatStages.map((stage) => [stage, boats.filter((boat) => boat.stage === stage).length]),
  ) as Record<BoatStage, number>;
  return { boats, boatsFound: boats.length, boatsInAll, stages };
};
const pages = [
  { path: "/boats", element: <BoatsScreen /> },
  { path: "/boats/new", element: <NewBoatScreen /> },
  { path: "/boats/:boat/rig", element: <p>its sheet</p> },
];

describe("all boats", () => {
  it("says when each was or will be handed over, what is due and owed", async () => {
    answerWith({
      boats: () =>
        listOf([
          row({ id: "a", nextDelivery: "2026-06-03", buyers: "Ilse Warrender-Featherstonehaugh-Okonkwo" }),
          row({ id: "b", inService: "2025-08-01", due: dueOn("2026-07-15"), owed: 3 }),
          row({ id: "c" }),
          row({ id: "d", due: { ...dueOn("2026-05-01"), state: "overdue" } }),
          row({ id: "e", due: { ...dueOn("2026-06-20"), by: "hours", isAnyDay: true } }),
        ]),
    });
    showScreen(pages, "/boats");
    const [, first, second, third, late, any] = await screen.findAllByRole("row");
    expect(first!.textContent).toContain("3 Jun 2026");
    expect(second!.textContent).toMatch(/was 1 Aug 2025.*15 Jul 2026.*3/);
    expect(within(third!).getAllByText("–")).toHaveLength(3);
    // What is overdue keeps its day; of a forecast that may have come true no day is said.
    expect(late!.textContent).toContain("▲ 1 May 2026");
    expect(any!.textContent).toContain("any day now");
    expect(screen.getByRole("link", { name: "New boat" }).getAttribute("href")).toBe("/boats/new");
  });

  it("that are too many to be sent at once are asked for by name, hull number or buyer", async () => {
    const asked: string[] = [];
    answerWith({
      boats: ({ query }) => {
        asked.push(query.get("find") ?? "");
        return query.get("find") === "warrender"
          ? listOf([row({ id: "z", name: "Pluma 22", buyers: "Ilse Warrender" })], 20_000)
          : { ...listOf([row({ id: "a" })], 20_000), boatsFound: 20_000 };
      },
    });
    showScreen(pages, "/boats");
    expect(await screen.findByText("1 of 20,000 stand on this page.")).toBeDefined();
    await userEvent.type(screen.getByRole("searchbox", { name: "Find in this list" }), "warrender");
    expect(await screen.findByRole("link", { name: "Pluma 22" })).toBeDefined();
    expect(screen.queryByRole("link", { name: "Wending 23" })).toBeNull();
    await userEvent.type(screen.getByRole("searchbox"), "x");
    expect(asked).toContain("warrender");
  });

  it("are narrowed to a stage, in the list that is here or by asking, page by page", async () => {
    const questions: string[] = [];
    answerWith({
      boats: ({ query }) => {
        questions.push(`${query.get("stage") ?? "all"} ${query.get("page") ?? 0}`);
        return { ...listOf([row({ id: "a", stage: "in-use" })], 700), boatsFound: 700 };
      },
    });
    showScreen(pages, "/boats");
    await userEvent.click(await screen.findByRole("radio", { name: /^In use/ }));
    await userEvent.click(await screen.findByRole("button", { name: "Next" }));
    expect(await screen.findByText("2 of 3")).toBeDefined();
    await waitFor(() => expect(questions).toContain("in-use 1"));
    await userEvent.click(screen.getByRole("radio", { name: /^Service due/ }));
    await waitFor(() => expect(questions).toContain("service-due 0"));
    cleanup();
    answerWith({ boats: () => listOf([row({ id: "a" }), row({ id: "b", name: "Pluma 22", stage: "service-due" })]) });
    showScreen(pages, "/boats");
    await userEvent.click(await screen.findByRole("radio", { name: "Service due 1" }));
    expect(screen.queryByRole("link", { name: "Wending 23" })).toBeNull();
    expect(screen.getByRole("link", { name: "Pluma 22" })).toBeDefined();
    await userEvent.click(screen.getByRole("radio", { name: "In break-in 0" }));
    expect(screen.getByText("No boat stands here now.")).toBeDefined();
  });

  it("asks the yard for a phone number, which the list does not have", async () => {
    answerWith({
      boats: ({ query }) =>
        query.get("find") === "555 0142" ? listOf([row({ id: "z", name: "Pluma 22" })], 1) : listOf([row({ id: "a" })]),
    });
    showScreen(pages, "/boats");
    await userEvent.type(await screen.findByRole("searchbox", { name: "Find in this list" }), "555 0142");
    expect(await screen.findByRole("link", { name: "Pluma 22" })).toBeDefined();
  });

  it("says how to start when there is none", async () => {
    answerWith({ boats: () => listOf([]) });
    showScreen(pages, "/boats");
    expect(await screen.findByText(/No boats yet/)).toBeDefined();
  });
});

describe("a new boat", () => {
  const open = async (more: Parameters<typeof answerWith>[0] = {}) => {
    const log = answerWith({
      templates: () => ({ templates }),
      boats: () => listOf([row({ id: "w118", name: "Wending, demo" })]),
      addBoat: () => ({ boat: "slw1" }),
      ...more,
    });
    const router = showScreen(pages, "/boats/new");
    await screen.findByRole("heading", { name: "A new boat" });
    return { log, router };
  };
  const go = () => screen.getByRole<HTMLButtonElement>("button", { name: "Open its boat sheet" });
  const sent = (log: ReturnType<typeof answerWith>) => log.find(({ name }) => name === "addBoat")!.body;

  it("starts from a template under its name, and opens its sheet", async () => {
    const { log, router } = await open();
    expect(go().disabled).toBe(true);
    await user.click(screen.getByRole("button", { name: /^Sedge 18/ }));
    expect(screen.getByLabelText<HTMLInputElement>("Name").value).toBe("Sedge 18");
    await user.type(screen.getByLabelText("Hull identification number"), "UMA18001C626");
    await user.click(go());
    expect(await screen.findByText("its sheet")).toBeDefined();
    expect(router.state.location.pathname).toBe("/boats/slw1/rig");
    expect(sent(log)).toEqual({ name: "Sedge 18", hull: "UMA18001C626", template: "sedge-18" });
  });

  it("starts as another boat stands", async () => {
    const { log } = await open();
    await user.selectOptions(await screen.findByLabelText("Or the same as another boat"), "w118");
    await user.type(screen.getByLabelText("Hull identification number"), "X");
    expect(screen.getByText(/has 1 characters/)).toBeDefined();
    await user.click(go());
    await screen.findByText("its sheet");
    expect(sent(log)).toEqual({ name: "Wending, demo", hull: "X", boat: "w118" });
  });

  it("starts from nothing but its kind and size, as a rig that holds together", async () => {
    const { log } = await open();
    await user.click(screen.getByRole("button", { name: /^Nothing/ }));
    await user.type(screen.getByLabelText("Maker"), "Orrinsby Works");
    await user.type(screen.getByLabelText("Model"), "One-off");
    await user.selectOptions(screen.getByLabelText("Kind of boat"), "cuddy");
    await user.clear(screen.getByLabelText("Length overall"));
    await user.type(screen.getByLabelText("Length overall"), "8,2");
    await user.click(screen.getByRole("checkbox", { name: "On a trailer" }));
    await user.type(screen.getByLabelText("Name"), "One-off");
    await user.type(screen.getByLabelText("Hull identification number"), "ORW00001A626");
    await user.click(go());
    await screen.findByText("its sheet");
    const { rig } = sent(log) as { rig: unknown };
    expect(rigSchema.parse(rig)).toMatchObject({ family: "cuddy", loaM: 8.2, trailer: null, model: "One-off" });
  });

  it("says when the hull number is taken, and keeps what was typed", async () => {
    await open({ addBoat: () => refuse("not-empty", { what: "boat with hull number", id: "UMA18001C626" }) });
    await user.click(screen.getByRole("button", { name: /^Pipit 15/ }));
    await user.type(screen.getByLabelText("Hull identification number"), "UMA18001C626");
    await user.click(go());
    expect((await screen.findByRole("alert")).textContent).toContain("There is already a boat with hull number");
    expect(screen.getByLabelText<HTMLInputElement>("Hull identification number").value).toBe("UMA18001C626");
    await waitFor(() => expect(go().disabled).toBe(false));
  });
});

describe("rows of a stock list", () => {
  const read = (rows: string[][]): StockRow[] =>
    readStock(rows, {
      mapping: {
        stock: null,
        color: null,
        hull: 0,
        model: 1,
        name: null,
        maker: null,
        modelYear: 2,
        family: null,
        length: null,
        beam: null,
      },
      unit: "m",
      templates,
      known: new Set(["SLW23118K526"]),
      thisYear: 2026,
      starts: {},
      startOfRest: null,
    });
  const choosing = { templates, starts: {}, startOfRest: null, onStart: vi.fn(), onRest: vi.fn() };

  it("stand with what is wrong first, each with its line, its number and what to know", () => {
    const rows = read([
      ["SLW20001B626", "Ferrin 20", "2026"],
      ["SLW23118K526", "Wending 23", "2026"],
      ["SLW20003B626", "Airship", "26"],
      ["SLW20004Z626", "Ferrin 20", ""],
    ]);
    render(<StockRows rows={rows} {...choosing} />);
    expect(screen.getByRole("status").textContent).toContain("2 new, 1 known already, 1 to be mended: mend them");
    const [, wrong, first, second, known] = screen.getAllByRole("row").map(({ textContent }) => textContent);
    expect(wrong).toMatch(/^4▲ to be mendedSLW20003B626/);
    expect(wrong).toContain('"26" is no model year');
    expect(first).toMatch(/^2new/);
    expect(second).toContain("stands for no month");
    expect(known).toMatch(/^3known already/);
  });

  it("let a start be chosen for boats that no template fits: each by itself, or all at once", async () => {
    render(<StockRows rows={read([["SLW20001B626", "Zephyr 9", "2026"]])} {...choosing} />);
    expect(screen.getByText(/1 boat fits no template/)).toBeTruthy();
    await user.selectOptions(screen.getByLabelText("What zephyr 9 starts from"), "plain cuddy cruiser");
    expect(choosing.onStart).toHaveBeenCalledWith("zephyr 9", { family: "cuddy" });
    await user.selectOptions(screen.getByLabelText("What all of them start from"), templates[0]!.name);
    expect(choosing.onRest).toHaveBeenCalledWith({ template: templates[0]!.id });
  });

  it("are shown a hundred at a time", async () => {
    const many = Array.from({ length: 250 }, (_, i) => [`SLW${20_000 + i}B626`, "Pipit 15", "2026"]);
    render(<StockRows rows={read(many)} {...choosing} />);
    expect(screen.getAllByRole("row")).toHaveLength(101);
    await user.click(screen.getByRole("button", { name: "Show more of the 250 rows" }));
    expect(screen.getAllByRole("row")).toHaveLength(251);
  });
});
