// @vitest-environment jsdom
import "fake-indexeddb/auto";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { EngineCare, NewRun } from "../../api/index.ts";
import { createGatewayStandIn } from "../../demo/gatewayStandIn.ts";
import { setStoreZone } from "../ui/storeTime.ts";
import type { BreakInPort } from "./breakInPort.ts";
import { RunFromFile } from "./RunFromFile.tsx";

/** The worker's own code, run beside the test instead of in a thread. */
const thread = vi.hoisted(() => ({ code: null as unknown }));
vi.mock("comlink", () => ({
  expose: (code: unknown) => {
    thread.code = code;
  },
  wrap: () => thread.code,
  proxy: (value: unknown) => value,
}));

// jsdom's files cannot tell their bytes by themselves.
Blob.prototype.arrayBuffer ??= function (this: Blob) {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(reader.result as ArrayBuffer);
    reader.onerror = () => reject(reader.error);
    reader.readAsArrayBuffer(this);
  });
};

beforeEach(async () => {
  vi.stubGlobal(
    "Worker",
    class {
      terminate() {}
    },
  );
  await import("../workers/runFile.ts");
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const engine = (id: string, label: string, kind: EngineCare["kind"] = "outboard") =>
  ({ engine: id, label, kind }) as EngineCare;
const twins = [engine("port", "Port engine"), engine("starboard", "Starboard engine")];

function start(care = [engine("main", "Engine")], isGateway = false) {
  const kept: NewRun[] = [];
  const port = { key: "b", today: "2026-06-20", care, runs: [] } as unknown as BreakInPort;
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <RunFromFile port={port} isGateway={isGateway} isBusy={false} onKeep={(run) => kept.push(run)} />
    </QueryClientProvider>,
  );
  return { kept, user: userEvent.setup() };
}
const file = (text: string | Uint8Array, name = "run.csv") => new File([text as BlobPart], name, { type: "text/csv" });
const choose = async (user: ReturnType<typeof userEvent.setup>, chosen: File) =>
  user.upload(document.querySelector<HTMLInputElement>('input[type="file"]')!, chosen);
const rows = (count: number, line: (s: number) => string) =>
  Array.from({ length: count }, (_, s) => line(s)).join("\n");

describe("a run from a file", () => {
  it("finds its columns, says what is in it, and is kept with day, time and coolant", async () => {
    const { kept, user } = start();
    await choose(
      user,
      file(
        `Time,Engine RPM,Coolant °C\n${rows(130, (s) => `2026-06-18T10:${String(Math.floor(s / 60)).padStart(2, "0")}:${String(s % 60).padStart(2, "0")},${700 + s},${20 + s / 2}`)}`,
      ),
    );
    expect(await screen.findByText("2 min, up to 829 rpm, coolant to 80 °C")).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Save" }));
    expect(kept).toHaveLength(1);
    expect(kept[0]).toMatchObject({ date: "2026-06-18", startMin: 600, source: "file", fileName: "run.csv" });
    expect(kept[0]!.engines[0]).toMatchObject({ engine: "main", temperatures: expect.arrayContaining([[10, 25]]) });
    expect(kept[0]!.engines[0]!.samples).toHaveLength(130);
  });

  it("is of the day and hour it was at the store, where the file tells them in UTC", async () => {
    setStoreZone("America/Chicago");
    const { kept, user } = start();
    await choose(user, file("time,rpm\n2026-06-15T01:30:00Z,800\n2026-06-15T01:30:01Z,900"));
    await user.click(await screen.findByRole("button", { name: "Save" }));
    expect(kept[0]).toMatchObject({ date: "2026-06-14", startMin: 20 * 60 + 30 });
  });

  it("asks which column holds what where the headings do not say", async () => {
    const { kept, user } = start();
    await choose(user, file(`a,b,c\n${rows(20, (s) => `${s},${1000 + s},${30 + s}`)}`));
    expect(await screen.findByText("Which column holds what?")).toBeTruthy();
    await user.selectOptions(screen.getByLabelText("Coolant"), "c (30)");
    await user.click(screen.getByRole("button", { name: "Read the file" }));
    await user.click(await screen.findByRole("button", { name: "Save" }));
    expect(kept[0]!.engines[0]!.samples.at(-1)).toEqual([19, 1019]);
    expect(kept[0]!.engines[0]!.temperatures).toEqual([
      [0, 30],
      [10, 40],
    ]);
  });

  it("says line and column of what is wrong, and keeps nothing", async () => {
    const { kept, user } = start();
    await choose(user, file("time,rpm\n0,700\n1,-5\n2,99999"));
    const alert = await screen.findByRole("alert");
    expect(alert.textContent).toContain("Nothing of this file was kept.");
    expect(alert.textContent).toContain("Line 3, rpm: rpm must not be negative");
    expect(alert.textContent).toContain("Line 4, rpm: 99,999 rpm is more than any engine turns");
    expect(screen.queryByRole("button", { name: "Save" })).toBeNull();
    expect(kept).toEqual([]);
  });

  it("that cannot be read any more says so instead of reading on for ever", async () => {
    const { user } = start();
    const gone = file("time,rpm\n0,700");
    gone.slice = () => {
      throw new DOMException("gone", "NotFoundError");
    };
    await choose(user, gone);
    expect((await screen.findByRole("alert")).textContent).toContain("could not be read");
    expect(screen.queryByRole("progressbar")).toBeNull();
  });

  it("says so when there is no speed in it", async () => {
    const { user } = start();
    await choose(user, file("time,rpm\n0,\n1,"));
    expect((await screen.findByRole("alert")).textContent).toContain("there is no engine speed in it");
  });

  it.each([
    [
      "UTF-16 as spreadsheets write it",
      (text: string) => Uint8Array.from([0xff, 0xfe, ...[...text].flatMap((c) => [c.charCodeAt(0), 0])]),
    ],
    ["an old code page, degrees and all", (text: string) => Uint8Array.from(text, (c) => c.charCodeAt(0))],
    ["UTF-8 with its mark", (text: string) => new TextEncoder().encode(`\uFEFF${text}`)],
  ])("is read from %s", async (_, encode) => {
    const { kept, user } = start();
    await choose(
      user,
      file(encode(`time;rpm;temp °C\r\n${rows(15, (s) => `${s};1.200,5;30`).replaceAll("\n", "\r\n")}`)),
    );
    await user.click(await screen.findByRole("button", { name: "Save" }));
    expect(kept[0]!.engines[0]!.samples[3]).toEqual([3, 1200.5]);
    expect(kept[0]!.engines[0]!.temperatures).toHaveLength(2);
  });

  it("of twins goes to both, to one, or each trace to its engine, also when they were swapped", async () => {
    const { kept, user } = start(twins);
    await choose(user, file(`time,rpm 1,rpm 2\n${rows(12, (s) => `${s},1000,2000`)}`));
    const first = await screen.findByLabelText("Engine of rpm 1");
    await user.selectOptions(first, "Starboard engine");
    expect(screen.getByRole("alert").textContent).toContain("Two traces go to the same engine");
    expect(screen.getByRole("button", { name: "Save" })).toHaveProperty("disabled", true);
    await user.selectOptions(screen.getByLabelText("Engine of rpm 2"), "Port engine");
    await user.click(screen.getByRole("button", { name: "Save" }));
    expect(kept[0]!.engines.map(({ engine: id, samples }) => [id, samples[0]![1]])).toEqual([
      ["starboard", 1000],
      ["port", 2000],
    ]);
  });

  it("of one trace stands for both of a pair, never for the kicker", async () => {
    const { kept, user } = start([...twins, engine("kicker", "Kicker", "kicker")]);
    await choose(user, file(`time,rpm\n${rows(12, (s) => `${s},1000`)}`));
    const options = within(await screen.findByLabelText("Engine of rpm")).getAllByRole("option");
    expect(options.map(({ textContent }) => textContent)).toEqual([
      "both engines",
      "Port engine",
      "Starboard engine",
      "Kicker",
      "leave out",
    ]);
    await user.click(screen.getByRole("button", { name: "Save" }));
    expect(kept[0]!.engines.map(({ engine: id }) => id)).toEqual(["port", "starboard"]);
  });
});

describe("a run from the gateway", () => {
  const gateway = createGatewayStandIn();
  const answer = (address: string) => {
    const run = /\/runs\/([\w-]+)/.exec(address)?.[1];
    if (run === undefined) return new Response(JSON.stringify({ runs: gateway.list() }));
    return new Response(gateway.read(run));
  };

  it("is listed, taken and read, NMEA sentences too", async () => {
    vi.stubGlobal("fetch", async (address: string) => answer(address));
    setStoreZone("UTC");
    const { kept, user } = start(twins, true);
    await user.click(await screen.findByRole("button", { name: 'Take "Twins, as NMEA 0183 sentences"' }));
    await user.click(await screen.findByRole("button", { name: "Save" }, { timeout: 5000 }));
    expect(kept[0]).toMatchObject({ source: "gateway", fileName: "twins.nmea", startMin: 750 });
    expect(kept[0]!.engines.map(({ engine: id }) => id)).toEqual(["port", "starboard"]);
    expect(kept[0]!.engines[1]!.samples.length).toBeGreaterThan(2000);
  });

  it("that gives no answer says so", async () => {
    vi.stubGlobal("fetch", async () => {
      throw new TypeError("no network");
    });
    start(undefined, true);
    await waitFor(() => expect(screen.getByText(/No answer from the yard/)).toBeTruthy());
  });
});
