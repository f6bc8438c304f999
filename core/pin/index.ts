export { derivePinKey, type PinKey, signOpening, writeOpening } from "./pinKey.ts";
export { describeEntry, describePhoto, describePost, isSent, signSent } from "./sent.ts";
