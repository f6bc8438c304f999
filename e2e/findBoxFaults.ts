import type { Page } from "@playwright/test";

/** What stands wrongly on the page: controls that overlap, words that leave their box, names cut to a few letters. In words. */
export const findBoxFaults = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const slack = 1.5;
    const said = (each: Element) =>
      `"${(each.getAttribute("aria-label") ?? each.textContent ?? "").trim().replace(/\s+/g, " ").slice(0, 40)}"`;
    const isSeen = (each: Element) => {
      const { width, height, left, right, top, bottom } = each.getBoundingClientRect();
      if (width < 2 || height < 2 || right < 0 || bottom < 0 || left > innerWidth || top > innerHeight) return false;
      const { visibility, opacity } = getComputedStyle(each);
      return visibility !== "hidden" && opacity !== "0" && each.closest(".sr-only, [inert], svg, canvas") === null;
    };
    /** The box that a scrolling frame around it lets one see. */
    const seenBox = (each: Element) => {
      let { left, right, top, bottom } = each.getBoundingClientRect();
      for (let at = each.parentElement; at !== null; at = at.parentElement) {
        if (getComputedStyle(at).overflow === "visible") continue;
        const frame = at.getBoundingClientRect();
        [left, top] = [Math.max(left, frame.left), Math.max(top, frame.top)];
        [right, bottom] = [Math.min(right, frame.right), Math.min(bottom, frame.bottom)];
      }
      return { left, right, top, bottom };
    };
    const isApart = (each: Element): boolean =>
      ["fixed", "sticky", "absolute"].includes(getComputedStyle(each).position) ||
      (each.parentElement !== null && each.parentElement !== document.body && isApart(each.parentElement));
    const controls = [
      ...document.querySelectorAll("a[href], button, input, select, textarea, summary, [role=radio], [role=tab]"),
    ].filter(isSeen);
    const faults: string[] = [];
    const boxes = controls.filter((each) => !isApart(each)).map((each) => ({ each, ...seenBox(each) }));
    for (const [i, a] of boxes.entries())
      for (const b of boxes.slice(i + 1)) {
        if (a.each.contains(b.each) || b.each.contains(a.each)) continue;
        const across = Math.min(a.right, b.right) - Math.max(a.left, b.left);
        const down = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
        if (across > slack && down > slack) faults.push(`${said(a.each)} lies over ${said(b.each)}`);
      }
    for (const each of controls) {
      if (each instanceof HTMLInputElement || each instanceof HTMLSelectElement || each instanceof HTMLTextAreaElement)
        continue;
      if (getComputedStyle(each).display === "inline" || (each.textContent ?? "").trim() === "") continue;
      const own = each.getBoundingClientRect();
      const range = document.createRange();
      range.selectNodeContents(each);
      const words = range.getBoundingClientRect();
      const isCut = each.querySelector(".truncate, .line-clamp-1, .line-clamp-2, .sr-only") !== null;
      if (!isCut && (words.left < own.left - slack || words.right > own.right + slack))
        faults.push(`the words of ${said(each)} leave it`);
    }
    for (const each of document.querySelectorAll(".truncate"))
      if (isSeen(each) && each.scrollWidth > each.clientWidth + 1 && each.clientWidth < 64)
        faults.push(`of ${said(each)} only ${each.clientWidth} px are seen`);
    return [...new Set(faults)];
  });

/** The tablets that most yards have, upright and across. */
export const tablets = [
  { width: 768, height: 1024 },
  { width: 820, height: 1180 },
  { width: 1024, height: 768 },
  { width: 1180, height: 820 },
] as const;
