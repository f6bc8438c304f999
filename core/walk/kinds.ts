/** The words a walk is written in, apart from the schemas, so that what only reads a walk need not carry those. */

export const marks = ["told", "shown", "did", "later", "not-aboard"] as const;
export type Mark = (typeof marks)[number];

/** How a topic put off is to be made up for. */
export const laterHows = ["next-visit", "on-the-water", "by-phone", "manual-together", "by-link"] as const;
export type LaterHow = (typeof laterHows)[number];

/** How bad a snag is, the worst first. */
export const severities = ["stop", "before-leaving", "by-date", "cosmetic", "note"] as const;
export type Severity = (typeof severities)[number];

/** Who may sign: the buyer, the one who walked, and somebody of the store beside them. */
export const signRoles = ["buyer", "staff", "countersign"] as const;
export type SignRole = (typeof signRoles)[number];

/** Whose entries those of the owner page are. */
export const ownerId = "owner";
