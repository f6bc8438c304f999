import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import { useState } from "react";
import { Button } from "./Button.tsx";
import { type KeyAction, useKeys } from "./useKeys.ts";

/** Gives a screen its keys, and lists them on `?`. */
export function KeyHelp({ actions }: { actions: readonly KeyAction[] }) {
  const [isOpen, setOpen] = useState(false);
  useKeys([...actions, { key: "?", says: "This list", act: () => setOpen(true) }]);
  return (
    <Dialog open={isOpen} onClose={setOpen} className="relative z-20">
      <div className="fixed inset-0 grid place-items-center bg-ink/30 p-4">
        <DialogPanel className="w-96 max-w-full rounded-md bg-panel p-6">
          <DialogTitle className="text-lg font-bold">Keys on this screen</DialogTitle>
          <table className="mt-3 w-full">
            <tbody>
              {[...actions, { key: "?", says: "This list" }].map(({ key, says }) => (
                <tr key={key} className="border-b border-rule">
                  <td className="py-1.5">
                    <kbd className="num rounded border border-soft px-2">{nameOf(key)}</kbd>
                  </td>
                  <td>{says}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <Button className="mt-4" onClick={() => setOpen(false)}>
            Back
          </Button>
        </DialogPanel>
      </div>
    </Dialog>
  );
}

const names: Record<string, string> = {
  ArrowLeft: "←",
  ArrowRight: "→",
  Enter: "Enter",
  PageDown: "Page ↓",
  PageUp: "Page ↑",
};
const nameOf = (key: string) => names[key] ?? key.toUpperCase();
