import { useEffect, useState } from "react";
import type { Delivery } from "../../../api/index.ts";
import { listSaved, saveOffline } from "../../offline/saved.ts";
import { Button } from "../../ui/Button.tsx";

/** Whether this walk can be opened and walked without signal on this device, and a button that makes it so. */
export function SaveOffline({ delivery }: { delivery: Delivery }) {
  const [is, setIs] = useState<"unknown" | "not" | "saving" | "saved">("unknown");
  useEffect(() => {
    let isOver = false;
    void listSaved([delivery.id]).then((found) => {
      if (!isOver) setIs(found.has(delivery.id) ? "saved" : "not");
    });
    return () => {
      isOver = true;
    };
  }, [delivery.id]);
  if (is === "unknown") return null;
  if (is === "saved") return <p className="mt-2 text-soft">Saved on this tablet: it can be walked without signal.</p>;
  const save = async () => {
    setIs("saving");
    const found = await saveOffline([delivery.id]);
    setIs(found.has(delivery.id) ? "saved" : "not");
  };
  return (
    <p className="mt-2 flex flex-wrap items-center gap-3 text-soft">
      <Button disabled={is === "saving"} onClick={() => void save()}>
        {is === "saving" ? "Saving …" : "Save for offline"}
      </Button>
      so that it can be walked without signal. Today's walks are saved automatically.
    </p>
  );
}
