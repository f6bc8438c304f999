import { createBrowserRouter } from "react-router";
import { SignInScreen } from "../screens/signIn/SignInScreen.tsx";
import { TodayScreen } from "../screens/today/TodayScreen.tsx";
import { Gate } from "./Gate.tsx";
import { LostScreen } from "./LostScreen.tsx";
import { Shell } from "./Shell.tsx";

/** The screens by address. Sign-in and Today come with the first load; the rest are fetched when first opened. */
export const router = createBrowserRouter([
  { path: "/sign-in", element: <SignInScreen /> },
  {
    element: <Gate />,
    errorElement: <LostScreen />,
    children: [
      {
        element: <Shell />,
        children: [
          { path: "/", element: <TodayScreen /> },
          {
            path: "/boats",
            lazy: async () => ({ Component: (await import("../screens/boats/BoatsScreen.tsx")).BoatsScreen }),
          },
          {
            path: "/boats/:boat",
            lazy: async () => ({ Component: (await import("../screens/boat/BoatScreen.tsx")).BoatScreen }),
          },
          {
            path: "/deliveries/:delivery",
            lazy: async () => ({ Component: (await import("../screens/plan/PlanScreen.tsx")).PlanScreen }),
          },
          {
            path: "/deliveries/:delivery/close",
            lazy: async () => ({ Component: (await import("../screens/close/CloseScreen.tsx")).CloseScreen }),
          },
          {
            path: "/deliveries/:delivery/record",
            lazy: async () => ({ Component: (await import("../screens/record/RecordScreen.tsx")).RecordScreen }),
          },
        ],
      },
      {
        path: "/deliveries/:delivery/walk",
        lazy: async () => ({ Component: (await import("../screens/walk/WalkScreen.tsx")).WalkScreen }),
      },
      { path: "*", element: <LostScreen /> },
    ],
  },
]);
