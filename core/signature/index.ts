export { findPublicKey, isSignedWith, signWith } from "./ed25519.ts";
