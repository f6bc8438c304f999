import { addressOf } from "../app/client.ts";
import {
  boatsQuery,
  deliveryQuery,
  faultsQuery,
  glossaryQuery,
  guidesQuery,
  meQuery,
  queryClient,
  todayQuery,
} from "../app/queries.ts";

/** Caches of the service worker (web/vite.config.ts) that hold what people may see; emptied when they sign out. */
const cacheNames = ["saved-11", "saved-photos-3"] as const;
/** Of the versions before, whose answers are of another shape. */
const oldNames = ["aboard", "aboard-photos", "saved-2", "saved-photos-2", "saved-3", "saved-4", "saved-5"];
const isAble = () => "serviceWorker" in navigator && "caches" in globalThis;

/** Fetches what these walks need, so that they can be walked without signal; answers which are saved now. */
export async function saveOffline(deliveries: readonly string[]): Promise<ReadonlySet<string>> {
  if (!isAble()) return new Set();
  await isInCharge();
  await Promise.all([
    // Fetched before the service worker was in charge, they would not be there without signal.
    ...[meQuery.queryKey, todayQuery.queryKey, boatsQuery.queryKey].map((queryKey) =>
      queryClient.refetchQueries({ queryKey }),
    ),
    queryClient.fetchQuery({ ...glossaryQuery, staleTime: 0 }).catch(() => undefined),
    queryClient.fetchQuery({ ...guidesQuery, staleTime: 0 }).catch(() => undefined),
    queryClient.fetchQuery({ ...faultsQuery, staleTime: 0 }).catch(() => undefined),
    ...deliveries.map((id) => queryClient.prefetchQuery({ ...deliveryQuery(id), staleTime: 0 })),
  ]);
  await Promise.all(deliveries.flatMap((id) => listPictures(id).map((address) => fetch(address).catch(() => null))));
  // The service worker puts an answer away after it has handed it on.
  for (let tries = 1; ; tries++) {
    const saved = await listSaved(deliveries);
    if (saved.size === deliveries.length || tries === mostLooks) return saved;
    await new Promise((resolve) => setTimeout(resolve, betweenLooksMs));
  }
}

/** The pictures of a walk that is known here: of its things, its topics and its snags, small and large. */
function listPictures(delivery: string): string[] {
  const known = queryClient.getQueryData(deliveryQuery(delivery).queryKey);
  if (known === undefined) return [];
  const photos = [
    ...known.rig.parts.flatMap(({ photo }) => photo ?? []),
    ...known.entries.flatMap((entry) => (entry.kind === "photo" ? [entry.photo] : [])),
  ];
  return [...new Set(photos)].flatMap((photo) => {
    const address = addressOf("photo", { photo });
    return [address, `${address}?size=small`];
  });
}

const mostLooks = 10;
const betweenLooksMs = 300;

/** Once the service worker answers this page's questions; the first time it takes a moment after the page is there. */
async function isInCharge(): Promise<void> {
  const { serviceWorker } = navigator;
  if (serviceWorker.controller !== null) return;
  await new Promise((resolve) => serviceWorker.addEventListener("controllerchange", resolve, { once: true }));
}

/** Which of these walks could be opened now without signal. */
export async function listSaved(deliveries: readonly string[]): Promise<ReadonlySet<string>> {
  if (!isAble()) return new Set();
  const cache = await caches.open(cacheNames[0]);
  const found = await Promise.all(
    deliveries.map(async (delivery) => ((await cache.match(addressOf("delivery", { delivery }))) ? delivery : null)),
  );
  return new Set(found.filter((delivery) => delivery !== null));
}

/** What this device holds of an answer, for whoever may no longer ask for it; null for nothing. */
export async function findSavedAnswer<T>(address: string): Promise<T | null> {
  if (!isAble()) return null;
  const cache = await caches.open(cacheNames[0]);
  const saved = await cache.match(address);
  return saved === undefined ? null : ((await saved.json()) as T);
}

if (isAble()) for (const name of oldNames) void caches.delete(name);

/** Nothing read by one person stays for the next. */
export async function forgetSaved(): Promise<void> {
  forgetDrafts();
  if (isAble()) await Promise.all(cacheNames.map((name) => caches.delete(name)));
}

/** What somebody was writing in this tab and has not saved: the guests of a trip, a timer. */
export const draftKeys = ["ravik-trip ", "ravik-timer "] as const;

function forgetDrafts() {
  try {
    for (const key of Object.keys(sessionStorage))
      if (draftKeys.some((start) => key.startsWith(start))) sessionStorage.removeItem(key);
  } catch {
    // A private window keeps nothing to forget.
  }
}
