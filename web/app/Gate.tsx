import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Navigate, Outlet, useLocation } from "react-router";
import type { Me } from "../../api/index.ts";
import { refreshHeld, useIdleLock, useIsLocked } from "../offline/sharedTablet.ts";
import { useSignOut } from "../offline/signOut.ts";
import { syncQueue } from "../offline/useSync.ts";
import { ErrorNotice, Waiting } from "../ui/Notice.tsx";
import { Refused } from "./client.ts";
import { findHeld } from "./held.ts";
import { meQuery, queryClient } from "./queries.ts";

syncQueue.onSent((delivery) => {
  // What was sent is shown from the sync queue already; the screens that are opened next fetch anew.
  void queryClient.invalidateQueries({ queryKey: ["delivery", delivery], refetchType: "none" });
  void queryClient.invalidateQueries({ queryKey: ["today"], refetchType: "none" });
});

/** Lets nobody past who is not signed in; tells the sync queue whose marks are made here. */
export function Gate() {
  const isSignedOut = useSignOut();
  const isWaitingForPin = useIsLocked();
  const isOut = isSignedOut || isWaitingForPin;
  const me = useQuery({ ...meQuery, enabled: !isOut });
  const location = useLocation();
  const id = me.data?.id;
  const name = me.data?.name;
  useEffect(() => {
    if (id !== undefined && name !== undefined && !isOut) syncQueue.setUser({ id, name });
  }, [id, name, isOut]);
  useEffect(() => {
    if (me.data !== undefined) refreshHeld(me.data);
  }, [me.data]);
  useIdleLock(me.data?.isShared === true && !isOut);
  if (isSignedOut) return <Navigate to="/sign-in" replace />;
  // Handed on in the middle of a walk, the tablet opens there again; what only some may see is left.
  if (isWaitingForPin) {
    const isOfAll = /^\/(deliveries|boats)\//.test(location.pathname);
    return <Navigate to="/sign-in" replace state={isOfAll ? { from: location.pathname } : null} />;
  }
  if (me.isPending) return <Waiting what="who is signed in" />;
  if (me.error instanceof Refused && me.error.code === "sign-in-needed")
    return <Navigate to="/sign-in" replace state={{ from: location.pathname }} />;
  if (me.data === undefined)
    return (
      <main className="p-8">
        <ErrorNotice error={me.error} />
      </main>
    );
  if (me.data.isShared && findHeld(me.data.id)?.pin === null)
    return <Navigate to="/pin" replace state={{ from: location.pathname }} />;
  if (me.data.owesSecond && location.pathname !== "/account") return <Navigate to="/account" replace />;
  return <Outlet context={me.data satisfies Me} />;
}
