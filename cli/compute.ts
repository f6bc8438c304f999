import { createInterface } from "node:readline";
import { z } from "zod";
import { compute, contractNames, contracts, isContractName } from "../core/compute.ts";

/** Compute in the terminal. Exit 0 answer, 2 bad input, 3 no answer; always JSON on standard output. */
const [name, flag] = process.argv.slice(2);

const print = (value: unknown) => process.stdout.write(`${JSON.stringify(value)}\n`);
const refuse = (path: string, message: string) => ({ error: { code: "invalid-input", issues: [{ path, message }] } });

function answerText(contract: keyof typeof contracts, text: string): { exit: number; value: unknown } {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch (error) {
    return { exit: 2, value: refuse("", `is not JSON: ${(error as Error).message}`) };
  }
  const answer = compute(contract, raw);
  if (answer.ok) return { exit: 0, value: answer.value };
  return { exit: answer.error.code === "invalid-input" ? 2 : 3, value: { error: answer.error } };
}

async function readAll(): Promise<string> {
  const chunks: Buffer[] = [];
  for await (const chunk of process.stdin) chunks.push(chunk as Buffer);
  return Buffer.concat(chunks).toString("utf8");
}

async function main(): Promise<number> {
  if (name === "list") {
    for (const each of contractNames) process.stdout.write(`${each}\n`);
    return 0;
  }
  const wanted = name === "schema" ? flag : name;
  if (wanted === undefined || !isContractName(wanted)) {
    print(refuse("name", `no calculation "${wanted ?? ""}"; there are: ${contractNames.join(", ")}`));
    return 2;
  }
  if (name === "schema") {
    print(z.toJSONSchema(contracts[wanted].input, { io: "input" }));
    return 0;
  }
  if (flag === "--lines") {
    for await (const line of createInterface({ input: process.stdin })) {
      if (line.trim() !== "") print(answerText(wanted, line).value);
    }
    return 0;
  }
  if (flag !== undefined) {
    print(refuse("flag", `no flag "${flag}"; there is: --lines`));
    return 2;
  }
  const { exit, value } = answerText(wanted, await readAll());
  print(value);
  return exit;
}

process.exitCode = await main();
