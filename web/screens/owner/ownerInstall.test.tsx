// @vitest-environment jsdom
import { act, cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import { OwnerInstall, useOwnApp } from "./OwnerInstall.tsx";

afterEach(() => {
  cleanup();
  document.head.replaceChildren();
});

function Page({ token }: { token: string }) {
  useOwnApp(token);
  return null;
}
const manifest = () => document.querySelector("link[rel=manifest]")?.getAttribute("href");

describe("an owner's page as an app", () => {
  it("starts at its own link while it is open, and is the store's again afterwards", () => {
    document.head.innerHTML = '<link rel="manifest" href="/manifest.webmanifest">';
    const { rerender, unmount } = render(<Page token="one" />);
    expect(manifest()).toBe("/api/owner/one/manifest.webmanifest");
    rerender(<Page token="two" />);
    expect(manifest()).toBe("/api/owner/two/manifest.webmanifest");
    unmount();
    expect(manifest()).toBe("/manifest.webmanifest");
  });

  it("says how it is put on the phone, asks by a touch where the browser can, and is silent once it is there", async () => {
    render(<OwnerInstall boatName="Wending 23" />);
    expect(screen.getByText(/choose “Add to Home Screen”/)).toBeTruthy();
    const prompt = vi.fn(async () => undefined);
    await act(async () => {
      window.dispatchEvent(Object.assign(new Event("beforeinstallprompt", { cancelable: true }), { prompt }));
    });
    await userEvent.setup().click(screen.getByRole("button", { name: "Add to home screen" }));
    expect(prompt).toHaveBeenCalledOnce();
    await act(async () => {
      window.dispatchEvent(new Event("appinstalled"));
    });
    expect(screen.queryByRole("heading")).toBeNull();
  });
});
