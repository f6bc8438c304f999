import { QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render } from "@testing-library/react";
import { MemoryRouter } from "react-router";
import { afterEach, beforeAll, beforeEach, vi } from "vitest";
import type { Delivery } from "../../api/index.ts";
import { rigTemplates, synonyms, topics } from "../../content/index.ts";
import { defaultPlanOptions, findStyle, listTopicsFor, planWalk } from "../../core/route/index.ts";
import { glossaryQuery, meQuery, queryClient } from "../app/queries.ts";
import { syncQueue, useWalkState } from "../offline/useSync.ts";
import { makeMe } from "./makeMe.ts";

export const rig = rigTemplates["wending-23"];
let number = 0;

/** A handover of the shipped boat that nobody has walked yet, under its own id. */
export function createDelivery(): Delivery {
  const planned = planWalk(rig, topics, findStyle("sweep"));
  if (!planned.ok) throw new Error(planned.error.message);
  const plan = planned.value;
  return {
    id: `d-${++number}`,
    boat: "w118",
    boatName: "Wending 23",
    hull: "",
    date: "2026-06-01",
    time: "10:00",
    note: "",
    buyers: [
      { id: "b1", name: "Ilse Warrender-Featherstonehaugh-Okonkwo" },
      { id: "b2", name: "Piet Marram" },
    ],
    staff: [{ id: "nessa", name: "Nessa" }],
    planOptions: { ...defaultPlanOptions, style: "sweep" },
    rig,
    plan,
    topics: listTopicsFor(rig, topics),
    told: {},
    makeReady: [],
    arrival: [],
    forgotten: { plotter: 0.9 },
    readings: {},
    snapshot: "5".repeat(64),
    next: null,
    receipts: {},
    entries: [],
    seal: null,
    added: [],
    uncovered: [],
    strikes: [],
    link: null,
  };
}

function Stage({ delivery, show }: { delivery: Delivery; show: (state: ReturnType<typeof useWalkState>) => unknown }) {
  return <>{show(useWalkState(delivery))}</>;
}

export const on = (delivery: Delivery, show: (state: ReturnType<typeof useWalkState>) => unknown) =>
  render(
    <QueryClientProvider client={queryClient}>
      <MemoryRouter>
        <Stage delivery={delivery} show={show} />
      </MemoryRouter>
    </QueryClientProvider>,
  );
export const kindsOf = (delivery: Delivery) => syncQueue.listOf(delivery.id).map(({ kind }) => kind);

/** A canvas that takes every stroke and draws none of them: jsdom has none. */
const noDrawing = new Proxy({}, { get: () => () => undefined, set: () => true });

/** A tablet without signal, somebody signed in, nothing on it yet. */
export function setUpTablet() {
  beforeAll(() => {
    vi.spyOn(HTMLCanvasElement.prototype, "getContext").mockReturnValue(noDrawing as never);
    vi.stubGlobal("fetch", () => Promise.reject(new TypeError("no signal")));
    queryClient.setQueryData(glossaryQuery.queryKey, { entries: [], told: [], ours: [], leftOut: [], synonyms });
    queryClient.setQueryData(meQuery.queryKey, makeMe());
  });
  beforeEach(() => syncQueue.setUser({ id: "nessa", name: "Nessa" }));
  afterEach(cleanup);
}
