/** Why the server does not start, in words for whoever starts it: nothing is broken, something is to be done. */
export class StartRefused extends Error {}

/** Runs `start`; a refusal is said in its words alone and ends the program with 1. */
export async function sayRefusals(start: () => Promise<void>): Promise<void> {
  try {
    await start();
  } catch (error) {
    if (!(error instanceof StartRefused)) throw error;
    console.error(`ravik: ${error.message}`);
    process.exit(1);
  }
}
