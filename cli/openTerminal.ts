import { stdin, stdout } from "node:process";
import { createInterface } from "node:readline/promises";
import { Writable } from "node:stream";

/** Asks line by line in the terminal; lines that are piped in wait for their questions. */
export function openTerminal() {
  let isHidden = false;
  const shown = new Writable({
    write(chunk: Buffer, _, done) {
      if (!isHidden) stdout.write(chunk);
      done();
    },
  });
  const terminal = createInterface({ input: stdin, output: shown, terminal: stdin.isTTY === true });
  // Lines that are piped in come all at once: each waits for its question.
  const lines = terminal[Symbol.asyncIterator]();
  const readLine = async (): Promise<string> => {
    const { value, done } = await lines.next();
    return done === true ? "" : String(value);
  };
  return {
    /** What was typed, else `usual`. */
    async ask(question: string, usual = ""): Promise<string> {
      stdout.write(usual === "" ? `${question}: ` : `${question} [${usual}]: `);
      return (await readLine()).trim() || usual;
    },
    /** Not shown while it is typed. */
    async askHidden(question: string): Promise<string> {
      stdout.write(`${question}: `);
      isHidden = stdin.isTTY === true;
      const typed = await readLine();
      isHidden = false;
      stdout.write("\n");
      return typed;
    },
    close: () => terminal.close(),
  };
}
export type Terminal = ReturnType<typeof openTerminal>;
