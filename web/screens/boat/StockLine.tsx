import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import type { Boat } from "../../../api/index.ts";
import { describers, isOneOf } from "../../../api/roles.ts";
import { ask } from "../../app/client.ts";
import { boatQuery, boatsQuery, queryClient } from "../../app/queries.ts";
import { useMe } from "../../app/useMe.ts";
import { spell } from "../../ui/amounts.ts";
import { Button } from "../../ui/Button.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { readPlain } from "../../ui/readPlain.ts";

const field = "mt-0.5 block min-h-11 rounded-md border border-soft bg-panel px-3 text-ink";

/** What the yard calls it: stock number and color, put right on the spot. */
export function StockLine({ boat }: { boat: Boat }) {
  const me = useMe();
  const [isOpen, setOpen] = useState(false);
  const [stock, setStock] = useState(boat.stock);
  const [color, setColor] = useState(boat.color);
  const save = useMutation({
    mutationFn: () =>
      ask("setStock", { params: { boat: boat.id }, body: { stock: stock.trim(), color: color.trim() } }),
    onSuccess: async () => {
      await queryClient.invalidateQueries({ queryKey: boatQuery(boat.id).queryKey });
      await queryClient.invalidateQueries({ queryKey: boatsQuery.queryKey });
      setOpen(false);
    },
  });
  const said = [boat.stock === "" ? "" : `Stock number ${boat.stock}`, boat.color].filter((part) => part !== "");
  if (!isOpen)
    return (
      <p className="flex flex-wrap items-center gap-x-4 text-soft">
        {said.length === 0 ? "No stock number" : said.join(", ")}
        {isOneOf(describers, me.role) && (
          <button
            type="button"
            aria-label="Change stock number and color"
            className="min-h-11 underline"
            onClick={() => setOpen(true)}
          >
            Change
          </button>
        )}
      </p>
    );
  return (
    <form
      className="my-2 flex flex-wrap items-end gap-3 border-l-4 border-helm pl-4"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <label className="text-soft">
        Stock number
        <input
          value={stock}
          maxLength={30}
          onChange={(event) => setStock(readPlain(event))}
          className={`${field} w-40`}
        />
      </label>
      <label className="text-soft">
        {spell("Color")}
        <input
          value={color}
          maxLength={40}
          onChange={(event) => setColor(readPlain(event))}
          className={`${field} w-52`}
        />
      </label>
      <Button type="submit" disabled={save.isPending}>
        Save
      </Button>
      <Button look="quiet" onClick={() => setOpen(false)}>
        Cancel
      </Button>
      {save.error !== null && <ErrorNotice error={save.error} />}
    </form>
  );
}
