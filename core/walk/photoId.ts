/** Of a photo, whose it is: the store's staff, or an owner by their page. Their names never meet. */
const prefixes = { staff: "p", owner: "o" } as const;
const named = /^[po]([0-9a-f]{40})$/;

/** The id of a photo whose bytes, as its device sends them, have this SHA-256 (hex). */
export const createPhotoId = (sha256: string, of: keyof typeof prefixes): string =>
  `${prefixes[of]}${sha256.slice(0, 40)}`;

/** Whether bytes with this SHA-256 may stand under a photo's id. Ids of the first version say nothing of their bytes. */
export function isPhotoOf(id: string, sha256: string): boolean {
  const match = named.exec(id);
  return match === null || sha256.startsWith(match[1]!);
}

/** Whether a photo was sent by an owner's page. */
export const isOwnersPhoto = (id: string): boolean => id.startsWith(prefixes.owner) && named.test(id);
