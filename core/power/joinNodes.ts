import type { LiveInput } from "./liveContract.ts";

type Link = LiveInput["links"][number];

/** Whether current passes a link, with its switch where `position` has it. */
export function conducts(link: Link, position: ReadonlyMap<string, string>): boolean {
  if (link.kind === "wire") return true;
  if (link.kind === "switch") return link.closedIn?.includes(position.get(link.switch ?? "") ?? "") ?? false;
  return link.tripped !== true;
}

/** Which nodes hang together: a name of the group of any node, the node's own where nothing joins it. */
export function joinNodes(links: readonly Pick<Link, "a" | "b">[]): (node: string) => string {
  const parent = new Map<string, string>();
  const rootOf = (node: string): string => {
    let root = node;
    for (let up = parent.get(root); up !== undefined; up = parent.get(root)) root = up;
    for (let at = node; at !== root; ) {
      const up = parent.get(at)!;
      parent.set(at, root);
      at = up;
    }
    return root;
  };
  for (const { a, b } of links) {
    const from = rootOf(a);
    const to = rootOf(b);
    if (from !== to) parent.set(from, to);
  }
  return rootOf;
}
