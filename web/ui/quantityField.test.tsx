// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { regions } from "../../core/region/index.ts";
import type { Typed } from "../../core/units/index.ts";
import { QuantityField } from "./QuantityField.tsx";
import { setStoreRegion } from "./storeTime.ts";

beforeEach(() => setStoreRegion(regions.us));
afterEach(() => {
  cleanup();
  setStoreRegion(regions.metric);
});

function Plate({
  start,
  onSet,
}: {
  start?: { value: number; typed?: Typed };
  onSet: (value: number | undefined, typed: Typed | undefined) => void;
}) {
  const [now, setNow] = useState<{ value: number | undefined; typed: Typed | undefined }>({
    value: start?.value,
    typed: start?.typed,
  });
  return (
    <QuantityField
      label="Pressure"
      quantity="pressure"
      {...now}
      least={50}
      most={1000}
      isOptional
      onChange={(value, typed) => {
        setNow({ value, typed });
        onSet(value, typed);
      }}
    />
  );
}
const field = () => screen.getByLabelText("Pressure") as HTMLInputElement;
const user = () => userEvent.setup();

describe("QuantityField", () => {
  it("takes what is typed in the store's unit, and keeps it as typed", async () => {
    const set = vi.fn();
    render(<Plate onSet={set} />);
    await user().type(field(), "65");
    expect(set).toHaveBeenLastCalledWith(expect.closeTo(448.16, 2), { value: 65, unit: "psi" });
    expect(field().value).toBe("65");
  });

  it("takes another unit written behind the number, or chosen before it", async () => {
    const set = vi.fn();
    render(<Plate onSet={set} />);
    await user().type(field(), "450 kPa");
    expect(set).toHaveBeenLastCalledWith(450, { value: 450, unit: "kPa" });
    expect(field().value).toBe("450 kPa");
    await user().selectOptions(screen.getByLabelText("Unit: Pressure"), "bar");
    expect(field().value).toBe("4.5");
    await user().clear(field());
    await user().type(field(), "4,2");
    expect(set).toHaveBeenLastCalledWith(expect.closeTo(420, 6), { value: 4.2, unit: "bar" });
  });

  it("looking at it in other units changes nothing, and what was typed comes back digit for digit", async () => {
    const set = vi.fn();
    const typed = { value: 52.35, unit: "psi" } as const;
    render(<Plate start={{ value: 52.35 * 6.894757293168361, typed }} onSet={set} />);
    expect(field().value).toBe("52.35");
    for (const unit of ["kPa", "bar", "psi"]) await user().selectOptions(screen.getByLabelText("Unit: Pressure"), unit);
    expect(field().value).toBe("52.35");
    expect(set).not.toHaveBeenCalled();
  });

  it("opens in the store's unit whatever it was typed in, and says what that was", async () => {
    setStoreRegion(regions.metric);
    render(<Plate start={{ value: 65 * 6.894757293168361, typed: { value: 65, unit: "psi" } }} onSet={vi.fn()} />);
    expect(field().value).toBe("448");
    expect(screen.getByText("Typed as 65 psi.")).toBeTruthy();
    await user().selectOptions(screen.getByLabelText("Unit: Pressure"), "psi");
    expect(field().value).toBe("65");
    expect(screen.queryByText(/Typed as/)).toBeNull();
  });

  it("says in the chosen unit what is out of range, and what is no amount; the last good one stays", async () => {
    const set = vi.fn();
    render(<Plate onSet={set} />);
    await user().type(field(), "65x");
    expect(screen.getByRole("alert").textContent).toContain("A number such as");
    await user().clear(field());
    await user().type(field(), "450");
    expect(screen.getByRole("alert").textContent).toContain("From 7.3 psi to 145 psi.");
    expect(set).not.toHaveBeenCalledWith(expect.closeTo(3102, 0), expect.anything());
    await user().clear(field());
    expect(set).toHaveBeenLastCalledWith(undefined, undefined);
  });

  it("takes the bounds that it says, and nothing beyond what is kept", async () => {
    const set = vi.fn();
    render(<QuantityField label="Length" quantity="length" value={6} least={3} most={20} onChange={set} />);
    const length = screen.getByLabelText("Length");
    await user().clear(length);
    await user().paste("70 ft");
    const [, least, most] = /From (.*) to (.*)\./.exec(screen.getByRole("alert").textContent!)!;
    for (const said of [least!, most!]) {
      await user().clear(length);
      await user().paste(said);
      expect(screen.queryByRole("alert"), said).toBeNull();
      expect(set.mock.lastCall![0]).toBeGreaterThanOrEqual(3);
      expect(set.mock.lastCall![0]).toBeLessThanOrEqual(20);
    }
  });

  it("does not round a ball to another size, and shows inches as they are stamped", () => {
    const ball = { label: "Ball", quantity: "ball", least: 20, most: 100, onChange: () => {} } as const;
    const { unmount } = render(<QuantityField {...ball} value={50} />);
    expect((screen.getByLabelText("Ball") as HTMLInputElement).value).toBe("1.969");
    unmount();
    render(<QuantityField {...ball} value={58.7375} typed={{ value: 2.3125, unit: "in" }} />);
    expect((screen.getByLabelText("Ball") as HTMLInputElement).value).toBe("2 5/16");
  });

  it("reads feet and inches as they are written", async () => {
    const set = vi.fn();
    render(<QuantityField label="Length" quantity="length" value={5.5} least={3} most={20} onChange={set} />);
    const length = screen.getByLabelText("Length") as HTMLInputElement;
    expect(length.value).toBe("18 ft 1 in");
    await user().clear(length);
    await user().paste(`18' 6"`);
    expect(set).toHaveBeenLastCalledWith(expect.closeTo(5.6388, 6), { value: 222, unit: "in" });
  });
});
