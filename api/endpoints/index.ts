import { boatsEndpoints } from "./boats.ts";
import { bundleEndpoints } from "./bundles.ts";
import { buyerEndpoints } from "./buyers.ts";
import { careEndpoints } from "./care.ts";
import { computeEndpoints } from "./compute.ts";
import { handoverEndpoints } from "./handover.ts";
import { keepingEndpoints } from "./keeping.ts";
import { libraryEndpoints } from "./library.ts";
import { ownerEndpoints } from "./owner.ts";
import { peopleEndpoints } from "./people.ts";
import { storeEndpoints } from "./store.ts";
import { towingEndpoints } from "./towing.ts";
import { tripEndpoints } from "./trips.ts";

/** Everything the server answers, once. */
export const endpoints = {
  ...storeEndpoints,
  ...peopleEndpoints,
  ...boatsEndpoints,
  ...careEndpoints,
  ...towingEndpoints,
  ...tripEndpoints,
  ...libraryEndpoints,
  ...handoverEndpoints,
  ...bundleEndpoints,
  ...buyerEndpoints,
  ...ownerEndpoints,
  ...keepingEndpoints,
  ...computeEndpoints,
} as const;

export type Endpoints = typeof endpoints;
export type EndpointName = keyof Endpoints;
