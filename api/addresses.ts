/**
 * Method and path of every endpoint, apart from their schemas, so that the web app need not carry those to ask.
 * `:name` stands for a key of the endpoint's params.
 */
export const addresses = {
  health: { method: "GET", path: "/api/health" },
  signInOptions: { method: "GET", path: "/api/sign-in" },
  signIn: { method: "POST", path: "/api/sign-in" },
  signOut: { method: "POST", path: "/api/sign-out" },
  me: { method: "GET", path: "/api/me" },
  openapi: { method: "GET", path: "/api/openapi.json" },
  today: { method: "GET", path: "/api/today" },
  boats: { method: "GET", path: "/api/boats" },
  boat: { method: "GET", path: "/api/boats/:boat" },
  addReading: { method: "POST", path: "/api/boats/:boat/readings" },
  addService: { method: "POST", path: "/api/boats/:boat/services" },
  delivery: { method: "GET", path: "/api/deliveries/:delivery" },
  plans: { method: "GET", path: "/api/deliveries/:delivery/plans" },
  setPlan: { method: "PUT", path: "/api/deliveries/:delivery/plan" },
  addEntries: { method: "POST", path: "/api/deliveries/:delivery/entries" },
  seal: { method: "POST", path: "/api/deliveries/:delivery/seal" },
  recordPdf: { method: "GET", path: "/api/deliveries/:delivery/record.pdf" },
  computeList: { method: "GET", path: "/api/compute" },
  computeSchema: { method: "GET", path: "/api/compute/:name/schema" },
  compute: { method: "POST", path: "/api/compute/:name" },
} as const satisfies Record<string, { method: "GET" | "POST" | "PUT"; path: `/api/${string}` }>;
