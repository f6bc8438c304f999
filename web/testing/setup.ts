import { configure } from "@testing-library/react";

// A machine that does several things at once is no reason to fail: what is waited for may take a while.
configure({ asyncUtilTimeout: 10_000 });

// jsdom lays nothing out: what only looks where things stand finds nothing to do.
if (typeof Element !== "undefined") {
  Element.prototype.scrollIntoView ??= () => undefined;
  globalThis.ResizeObserver ??= class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
}

/** What a label without `for` may belong to. */
const labelable = "button, input:not([type=hidden]), meter, output, progress, select, textarea";

/**
 * The labels of a field. jsdom looks for what each label belongs to through the whole page, for each field anew, which on a long form takes
 * most of a test's time; an id is looked up at once.
 */
function findLabels(this: Element): Element[] {
  const labels = this.ownerDocument.querySelectorAll("label");
  return [...labels].filter((label) =>
    label.htmlFor === "" ? label.querySelector(labelable) === this : this.id !== "" && label.htmlFor === this.id,
  );
}

const notShown = "[hidden], input[type=hidden], dialog:not([open]), script, style, template, head";

/** As far as no stylesheet says anything, which in these tests none does: what stands in the element, and what is inherited of that. */
function readStyle(element: Element) {
  const { style } = element as HTMLElement;
  const findInherited = (name: "visibility" | "pointerEvents", usual: string) => {
    for (let at: Element | null = element; at !== null; at = at.parentElement) {
      const said = (at as HTMLElement).style?.[name];
      if (said) return said;
    }
    return usual;
  };
  const own = {
    display: element.matches(notShown) ? "none" : style.display || "block",
    visibility: findInherited("visibility", "visible"),
    pointerEvents: findInherited("pointerEvents", "auto"),
  };
  return new Proxy(style, {
    get: (_, name) => {
      if (name === "getPropertyValue")
        return (asked: string) =>
          asked === "pointer-events"
            ? own.pointerEvents
            : (own[asked as keyof typeof own] ?? style.getPropertyValue(asked));
      return own[name as keyof typeof own] ?? Reflect.get(style, name);
    },
  });
}

if (typeof HTMLElement !== "undefined") {
  // What jsdom works out for each look, by a whole cascade, takes longer than all that is looked at.
  window.getComputedStyle = readStyle as typeof window.getComputedStyle;
  for (const made of [HTMLInputElement, HTMLSelectElement, HTMLTextAreaElement, HTMLButtonElement, HTMLOutputElement])
    Object.defineProperty(made.prototype, "labels", { configurable: true, get: findLabels });
}
