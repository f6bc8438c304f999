/** What a boat is made of, as the walk divides it. */
export const systems = ["electrical", "helm", "engine", "water", "deck", "trailer", "safety"] as const;
export type System = (typeof systems)[number];

export const systemNames: Record<System, string> = {
  electrical: "Electrical",
  helm: "Helm",
  engine: "Engines",
  water: "Water and waste",
  deck: "Deck",
  trailer: "Trailer and ramp",
  safety: "Safety",
};
