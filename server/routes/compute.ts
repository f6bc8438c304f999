import type Router from "@koa/router";
import { z } from "zod";
import { endpoints } from "../../api/index.ts";
import { compute, contractNames, contracts, isContractName } from "../../core/compute.ts";
import type { Services } from "../createServices.ts";
import { Failure } from "../failure.ts";
import { serve } from "../http.ts";

/** The compute auth over HTTP: 422 for bad input, 409 for a well-formed question without an answer. */
export function routeCompute(router: Router, { auth }: Services) {
  router.get(
    endpoints.computeList.path,
    serve(endpoints.computeList, auth, () => ({ names: [...contractNames] })),
  );
  router.get(
    endpoints.computeSchema.path,
    serve(endpoints.computeSchema, auth, ({ params }) => {
      if (!isContractName(params.name)) throw new Failure("not-found", { what: "calculation", id: params.name });
      return z.toJSONSchema(contracts[params.name].input, { io: "input" });
    }),
  );
  router.post(
    endpoints.compute.path,
    serve(endpoints.compute, auth, ({ params, body, ctx }) => {
      if (!isContractName(params.name)) throw new Failure("not-found", { what: "calculation", id: params.name });
      const answer = compute(params.name, body);
      if (answer.ok) return answer.value;
      ctx.status = answer.error.code === "invalid-input" ? 422 : 409;
      return { error: answer.error };
    }),
  );
}
