import { useRef, useState } from "react";
import { ulid } from "ulid";
import { toInstant } from "../../../core/dates/index.ts";
import type { Launch } from "../../../core/ramp/index.ts";
import { useTowing } from "../../towing/useTowing.ts";
import { say } from "../../ui/amounts.ts";
import { Button } from "../../ui/Button.tsx";
import { PickField } from "../../ui/fields.tsx";
import { ErrorNotice } from "../../ui/Notice.tsx";
import { QuantityField } from "../../ui/QuantityField.tsx";
import { Removed, useGone } from "../../ui/Removed.tsx";
import { storeDay } from "../../ui/storeTime.ts";
import { formatDayAndYear } from "../../ui/words.ts";

interface LaunchSeenProps {
  readonly boat: string;
  readonly ramp: string;
  readonly gradePct: number;
  /** Where the mark was reckoned to be. */
  readonly expectedM: number;
  readonly launches: readonly Launch[];
}

/** What was seen when the stern floated: as reckoned by one touch, else how far under or out. The next mark goes by it. */
export function LaunchSeen({ boat, ramp, gradePct, expectedM, launches }: LaunchSeenProps) {
  const { addLaunch, removeLaunch } = useTowing(boat);
  const { gone, setGone } = useGone<Launch>();
  const [isOther, setOther] = useState(false);
  const [seenM, setSeenM] = useState<number | undefined>(undefined);
  const [side, setSide] = useState<"under" | "out">("under");
  // One launch has one id until it is written down: a second press on the way sends the same.
  const id = useRef(ulid());
  const keep = (fenderUnderM: number) =>
    addLaunch.mutate(
      { id: id.current, at: toInstant(Date.now()), ramp, gradePct, fenderUnderM },
      {
        onSuccess: () => {
          id.current = ulid();
          setOther(false);
        },
      },
    );
  const last = launches.at(-1);
  return (
    <section aria-label="What was seen" className="space-y-2">
      <Button
        look="primary"
        className="min-h-14 w-full text-lg"
        disabled={addLaunch.isPending}
        onClick={() => keep(expectedM)}
      >
        It floats: as calculated
      </Button>
      {isOther ? (
        <div className="rounded-md border border-ink bg-panel p-3">
          <QuantityField
            label="Top of the fender when the stern floated"
            quantity="height"
            value={seenM}
            onChange={setSeenM}
            least={0}
            most={2}
          />
          <PickField
            label="Was it under?"
            value={side}
            options={[
              ["under", "under the water"],
              ["out", "out of the water"],
            ]}
            onChange={setSide}
          />
          <p className="mt-3 flex gap-2">
            <Button
              disabled={seenM === undefined || addLaunch.isPending}
              onClick={() => keep(side === "under" ? seenM! : -seenM!)}
            >
              Save
            </Button>
            <Button look="quiet" onClick={() => setOther(false)}>
              Cancel
            </Button>
          </p>
        </div>
      ) : (
        <Button className="min-h-12 w-full" onClick={() => setOther(true)}>
          It was somewhere else
        </Button>
      )}
      {addLaunch.error !== null && <ErrorNotice error={addLaunch.error} />}
      {addLaunch.isSuccess && !isOther && <p role="status">Written down: the mark goes by it from now on.</p>}
      {last !== undefined && (
        <p className="text-sm text-soft">
          Last: {last.ramp}, {formatDayAndYear(storeDay(last.at))}, {say(Math.abs(last.fenderUnderM), "height")}{" "}
          {last.fenderUnderM >= 0 ? "under" : "out"}, {last.by}.{" "}
          <button
            type="button"
            className="inline-flex min-h-11 items-center underline"
            disabled={removeLaunch.isPending}
            onClick={() =>
              removeLaunch.mutate(last.id, {
                onSuccess: () => setGone({ what: last, name: `The launch of ${formatDayAndYear(storeDay(last.at))}` }),
              })
            }
          >
            Take it out
          </button>
        </p>
      )}
      <Removed
        gone={gone}
        isBusy={addLaunch.isPending}
        error={removeLaunch.error}
        onUndo={({ by: _, ...launch }) => addLaunch.mutate(launch, { onSuccess: () => setGone(null) })}
      />
    </section>
  );
}
