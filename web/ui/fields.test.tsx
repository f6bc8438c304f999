// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { ManyField, NumberField, TextField } from "./fields.tsx";

afterEach(cleanup);
const user = () => userEvent.setup();

function Length({ start, onSet }: { start?: number; onSet: (value: number | undefined) => void }) {
  const [value, setValue] = useState<number | undefined>(start);
  return (
    <>
      <NumberField
        label="Length"
        unit="m"
        value={value}
        least={3}
        most={20}
        isOptional={start === undefined}
        onChange={(next) => {
          setValue(next);
          onSet(next);
        }}
      />
      <button type="button" onClick={() => setValue(7)}>
        Elsewhere
      </button>
    </>
  );
}

function Called({ onSet }: { onSet: (value: string) => void }) {
  const [value, setValue] = useState("Plug");
  return (
    <TextField
      label="Called"
      value={value}
      onChange={(next) => {
        setValue(next);
        onSet(next);
      }}
    />
  );
}

describe("NumberField", () => {
  it("takes comma or point, and keeps the last good number while something else is typed", async () => {
    const set = vi.fn();
    render(<Length start={6} onSet={set} />);
    const field = screen.getByLabelText("Length");
    const { clear, type } = user();
    await clear(field);
    expect(screen.getByRole("alert").textContent).toContain("A number is needed");
    await type(field, "6,45");
    expect(set).toHaveBeenLastCalledWith(6.45);
    expect((field as HTMLInputElement).value).toBe("6,45");
    await type(field, "00");
    expect(set).toHaveBeenLastCalledWith(6.45);
    await clear(field);
    await type(field, "99");
    expect(screen.getByRole("alert").textContent).toContain("From 3 to 20 m.");
    expect(set).not.toHaveBeenCalledWith(99);
  });

  it("shows a number that changed elsewhere, such as by undo", async () => {
    render(<Length start={6} onSet={() => {}} />);
    const { type, click } = user();
    await type(screen.getByLabelText("Length"), "x");
    await click(screen.getByRole("button", { name: "Elsewhere" }));
    expect((screen.getByLabelText("Length") as HTMLInputElement).value).toBe("7");
  });

  it("may stay empty where it is optional", async () => {
    const set = vi.fn();
    render(<Length onSet={set} />);
    const { clear, type } = user();
    await type(screen.getByLabelText("Length"), "5");
    await clear(screen.getByLabelText("Length"));
    expect(set.mock.calls.map(([value]) => value)).toEqual([5, undefined]);
    expect(screen.queryByRole("alert")).toBeNull();
  });
});

describe("TextField", () => {
  it("lets no markup in, and says when nothing is left", async () => {
    const set = vi.fn();
    render(<Called onSet={set} />);
    expect(screen.queryByRole("alert")).toBeNull();
    const { clear, type } = user();
    await clear(screen.getByLabelText("Called"));
    expect(screen.getByRole("alert").textContent).toContain("Must not be empty");
    expect(set).not.toHaveBeenCalled();
    await type(screen.getByLabelText("Called"), "<i>");
    expect(set).toHaveBeenLastCalledWith("i");
  });
});

describe("ManyField", () => {
  it("finds by typing, picks several, and makes what is missing", async () => {
    const [set, create] = [vi.fn(), vi.fn()];
    render(
      <ManyField
        label="Feeds"
        value={["horn"]}
        options={[
          ["horn", "Horn"],
          ["pump", "Bilge pump"],
        ]}
        onChange={set}
        onCreate={create}
      />,
    );
    const field = screen.getByRole("combobox", { name: "Feeds" });
    expect(field.getAttribute("placeholder")).toBe("Horn");
    const { type, click } = user();
    await type(field, "bilge");
    await click(screen.getByRole("option", { name: "Bilge pump" }));
    expect(set).toHaveBeenLastCalledWith(["horn", "pump"]);
    await type(field, "Fridge");
    await click(screen.getByRole("option", { name: "Add “Fridge”" }));
    expect(create).toHaveBeenLastCalledWith("Fridge");
    expect(set).toHaveBeenCalledTimes(1);
  });
});
