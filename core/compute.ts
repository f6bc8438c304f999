import type { z } from "zod";
import {
  breakInPlan,
  breakInPlanInputSchema,
  breakInPlanOutputSchema,
  breakInTrace,
  traceInputSchema,
  traceOutputSchema,
} from "./breakin/index.ts";
import { diagnose, diagnoseInputSchema, diagnoseOutputSchema } from "./faults/index.ts";
import { gear, gearInputSchema, gearOutputSchema } from "./gear/index.ts";
import { forecastHours, forecastInputSchema, forecastOutputSchema } from "./hours/index.ts";
import {
  endurance,
  enduranceInputSchema,
  enduranceOutputSchema,
  live,
  liveInputSchema,
  liveOutputSchema,
} from "./power/index.ts";
import { ramp, rampInputSchema, rampOutputSchema } from "./ramp/index.ts";
import type { Result } from "./result.ts";
import { succeed } from "./result.ts";
import { route, routeInputSchema, routeOutputSchema } from "./route/index.ts";
import {
  due,
  dueInputSchema,
  dueOutputSchema,
  visits,
  visitsInputSchema,
  visitsOutputSchema,
} from "./service/index.ts";

import { tow, towInputSchema, towOutputSchema } from "./tow/index.ts";
import { trip, tripInputSchema, tripOutputSchema } from "./trip/index.ts";

export interface Issue {
  path: string;
  message: string;
}
export type ComputeError = { code: string; message?: string; [fact: string]: unknown };
export type ComputeAnswer = Result<unknown, ComputeError>;

interface Contract {
  readonly input: z.ZodType;
  readonly output: z.ZodType;
  readonly run: (input: unknown) => ComputeAnswer;
}

function createContract<I extends z.ZodType, O extends z.ZodType>(
  input: I,
  output: O,
  answer: (input: z.infer<I>) => Result<z.infer<O>, ComputeError>,
): Contract {
  return {
    input,
    output,
    run(raw) {
      const parsed = input.safeParse(raw);
      if (!parsed.success) return { ok: false, error: { code: "invalid-input", issues: formatIssues(parsed.error) } };
      return answer(parsed.data);
    },
  };
}

/** The register of contracts: every calculation that has been built, by name. What is not built is absent. */
export const contracts = {
  "breakin-plan": createContract(breakInPlanInputSchema, breakInPlanOutputSchema, breakInPlan),
  "breakin-trace": createContract(traceInputSchema, traceOutputSchema, (input) => succeed(breakInTrace(input))),
  diagnose: createContract(diagnoseInputSchema, diagnoseOutputSchema, diagnose),
  due: createContract(dueInputSchema, dueOutputSchema, (input) => succeed(due(input))),
  endurance: createContract(enduranceInputSchema, enduranceOutputSchema, (input) => succeed(endurance(input))),
  gear: createContract(gearInputSchema, gearOutputSchema, (input) => succeed(gear(input))),
  "hours-forecast": createContract(forecastInputSchema, forecastOutputSchema, (input) => succeed(forecastHours(input))),
  live: createContract(liveInputSchema, liveOutputSchema, (input) => succeed(live(input))),
  ramp: createContract(rampInputSchema, rampOutputSchema, (input) => succeed(ramp(input))),
  route: createContract(routeInputSchema, routeOutputSchema, route),
  tow: createContract(towInputSchema, towOutputSchema, (input) => succeed(tow(input))),
  trip: createContract(tripInputSchema, tripOutputSchema, (input) => succeed(trip(input))),
  visits: createContract(visitsInputSchema, visitsOutputSchema, (input) => succeed(visits(input))),
} satisfies Record<string, Contract>;

export type ContractName = keyof typeof contracts;

export const contractNames = Object.keys(contracts).sort() as ContractName[];

export function isContractName(name: string): name is ContractName {
  return Object.hasOwn(contracts, name);
}

/** Runs a contract on unchecked input; `invalid-input` lists what is wrong and where. Never throws for bad input. */
export function compute(name: ContractName, raw: unknown): ComputeAnswer {
  return contracts[name].run(raw);
}

/** Zod's issues as `{path, message}`, the path written `a.b[2]`; unknown keys are named. */
export function formatIssues(error: z.core.$ZodError): Issue[] {
  return error.issues.map((issue) => ({ path: formatPath(issue.path), message: issue.message }));
}

function formatPath(path: readonly PropertyKey[]): string {
  return path
    .map((key, i) => (typeof key === "number" ? `[${key}]` : i === 0 ? String(key) : `.${String(key)}`))
    .join("");
}
