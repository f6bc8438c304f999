// @vitest-environment jsdom
import { QueryClient, QueryClientProvider, useQuery } from "@tanstack/react-query";
import { act, cleanup, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { setStoreZone } from "../ui/storeTime.ts";
import { findSection } from "./sections.ts";
import { useDayTurn } from "./useDayTurn.ts";

function Lying({ fetch }: { fetch: () => string }) {
  useDayTurn();
  const { data } = useQuery({ queryKey: ["today"], queryFn: fetch, staleTime: Number.POSITIVE_INFINITY });
  return <p>{data}</p>;
}

describe("the section a page belongs to", () => {
  it.each([
    ["/", "/"],
    ["/deliveries/d-w118/close", "/"],
    ["/boats/new", "/boats"],
    ["/aftercare/calls", "/aftercare"],
    ["/aftercare/workshop", "/aftercare/workshop"],
    ["/staff", "/more"],
    ["/storeroom", null],
  ])("of %s is %s", (address, section) => {
    expect(findSection(address)).toBe(section);
  });
});

describe("a page that lies open over midnight", () => {
  beforeEach(() => {
    vi.useFakeTimers();
    setStoreZone("UTC");
  });
  afterEach(() => {
    cleanup();
    vi.useRealTimers();
  });

  const lay = () => {
    const fetch = vi.fn(() => new Date().toISOString().slice(0, 10));
    const client = new QueryClient();
    render(
      <QueryClientProvider client={client}>
        <Lying fetch={fetch} />
      </QueryClientProvider>,
    );
    return fetch;
  };
  const pass = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));

  it("is asked for anew when the store's day turns, and not before", async () => {
    vi.setSystemTime("2026-06-01T23:58:00.000Z");
    const fetch = lay();
    await pass(60_000);
    expect(fetch).toHaveBeenCalledTimes(1);
    await pass(120_000);
    expect(fetch).toHaveBeenCalledTimes(2);
    expect(screen.getByText("2026-06-02")).toBeTruthy();
    await pass(3_600_000);
    expect(fetch).toHaveBeenCalledTimes(2);
  });

  it("is asked for anew when a device wakes on another day", async () => {
    vi.setSystemTime("2026-06-01T18:00:00.000Z");
    const fetch = lay();
    await pass(0);
    vi.setSystemTime("2026-06-02T07:30:00.000Z");
    document.dispatchEvent(new Event("visibilitychange"));
    await pass(0);
    expect(fetch).toHaveBeenCalledTimes(2);
  });
});
