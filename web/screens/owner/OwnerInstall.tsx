import { useEffect, useState } from "react";
import { addressOf } from "../../app/client.ts";
import { Button } from "../../ui/Button.tsx";
import { useTell } from "../../ui/tell.ts";

/** As browsers that can ask hand it to the page, before they ask by themselves. */
interface InstallEvent extends Event {
  prompt(): Promise<unknown>;
}

/** Makes the page an app of its own while it is open: installed from here, it starts at this link, not at the store's sign-in. */
export function useOwnApp(token: string): void {
  useEffect(() => {
    const link = document.querySelector<HTMLLinkElement>("link[rel=manifest]") ?? document.createElement("link");
    const before = link.getAttribute("href");
    link.rel = "manifest";
    link.href = addressOf("ownerManifest", { token });
    if (before === null) document.head.append(link);
    return () => {
      if (before === null) link.remove();
      else link.setAttribute("href", before);
    };
  }, [token]);
}

const isInstalled = () => window.matchMedia?.("(display-mode: standalone)").matches ?? false;

/** How the page is put on the phone: by a touch where the browser offers it, else in words. Nothing once it is there. */
export function OwnerInstall({ boatName }: { boatName: string }) {
  const tell = useTell();
  const [offer, setOffer] = useState<InstallEvent | null>(null);
  const [isThere, setThere] = useState(isInstalled);
  useEffect(() => {
    const keep = (event: Event) => {
      event.preventDefault();
      setOffer(event as InstallEvent);
    };
    const done = () => setThere(true);
    window.addEventListener("beforeinstallprompt", keep);
    window.addEventListener("appinstalled", done);
    return () => {
      window.removeEventListener("beforeinstallprompt", keep);
      window.removeEventListener("appinstalled", done);
    };
  }, []);
  if (isThere) return null;
  return (
    <section aria-labelledby="install" className="mt-7">
      <h2 id="install" className="text-lg font-bold">
        {tell("On your phone")}
      </h2>
      <p className="border-t border-ink py-2">
        {tell("Put {0} on your home screen: it opens like an app, also where there is no signal.", boatName)}{" "}
        {offer === null &&
          tell("In your browser's menu choose “Add to Home Screen”; on some phones it stands behind the share sign.")}
      </p>
      {offer !== null && (
        <Button
          className="min-h-12"
          onClick={() => {
            // It can be asked once; what they choose, the browser says by an event.
            setOffer(null);
            void offer.prompt();
          }}
        >
          {tell("Add to home screen")}
        </Button>
      )}
    </section>
  );
}
