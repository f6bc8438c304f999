import { useEffect, useState } from "react";
import type { Delivery } from "../../../api/index.ts";
import { listAboard, takeAboard } from "../../offline/aboard.ts";
import { Button } from "../../ui/Button.tsx";

/** Whether this walk can be opened and walked without signal on this device, and a button that makes it so. */
export function Aboard({ delivery }: { delivery: Delivery }) {
  const [is, setIs] = useState<"unknown" | "ashore" | "taking" | "aboard">("unknown");
  useEffect(() => {
    let isOver = false;
    void listAboard([delivery.id]).then((found) => {
      if (!isOver) setIs(found.has(delivery.id) ? "aboard" : "ashore");
    });
    return () => {
      isOver = true;
    };
  }, [delivery.id]);
  if (is === "unknown") return null;
  if (is === "aboard") return <p className="mt-2 text-soft">Aboard this device: it can be walked without signal.</p>;
  const save = async () => {
    setIs("taking");
    const found = await takeAboard([delivery.id]);
    setIs(found.has(delivery.id) ? "aboard" : "ashore");
  };
  return (
    <p className="mt-2 flex flex-wrap items-center gap-3 text-soft">
      <Button disabled={is === "taking"} onClick={() => void save()}>
        {is === "taking" ? "Taking it aboard …" : "Take aboard"}
      </Button>
      so that it can be walked without signal. Today's walks are taken aboard by themselves.
    </p>
  );
}
