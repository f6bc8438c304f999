// @vitest-environment jsdom
import { act, cleanup, render, screen } from "@testing-library/react";
import { createMemoryRouter, RouterProvider } from "react-router";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { LostScreen } from "../app/LostScreen.tsx";

const missing = "Failed to fetch dynamically imported module: Chart.js";
beforeEach(() => vi.resetModules());
afterEach(() => {
  cleanup();
  vi.doUnmock("./Chart.tsx");
  vi.restoreAllMocks();
});

describe("a chart", () => {
  it("that cannot be fetched says what it shows, and is drawn when there is signal again", async () => {
    vi.doMock("./Chart.tsx", () => {
      throw new TypeError(missing);
    });
    const { LazyChart } = await import("./LazyChart.tsx");
    render(<LazyChart draw={() => ({})} heightPx={100} says="Limits over 10 engine hours." />);
    expect((await screen.findByText(/Limits over 10 engine hours/)).textContent).toContain(
      "drawn when there is signal",
    );
    vi.doMock("./Chart.tsx", () => ({ default: ({ says }: { says: string }) => <div role="img" aria-label={says} /> }));
    await act(async () => void window.dispatchEvent(new Event("online")));
    expect(await screen.findByRole("img", { name: "Limits over 10 engine hours." })).toBeTruthy();
    expect(screen.queryByText(/drawn when there is signal/)).toBeNull();
  });
});

function Failing({ error }: { error: unknown }): never {
  throw error;
}

describe("a page that fails", () => {
  const open = (path: string, error: unknown) => {
    vi.spyOn(console, "error").mockImplementation(() => undefined);
    const routes = ["/o/:token", "/boats"].map((each) => ({
      path: each,
      element: <Failing error={error} />,
      errorElement: <LostScreen />,
    }));
    render(<RouterProvider router={createMemoryRouter(routes, { initialEntries: [path] })} />);
  };

  it("for want of signal says so, offers to try again, and leads the yard back to Today", () => {
    open("/boats", new TypeError(missing));
    expect(screen.getByText(/not on the device yet, and there is no signal/)).toBeTruthy();
    expect(screen.getByRole("button", { name: "Try again" })).toBeTruthy();
    expect(screen.getByRole("link", { name: "Go to Today" })).toBeTruthy();
  });

  it("leads an owner nowhere they may not go", () => {
    open("/o/abc", new Error("broken"));
    expect(screen.getByRole("heading", { name: "This page could not be shown" })).toBeTruthy();
    expect(screen.queryByRole("link")).toBeNull();
  });
});
