import { createBrowserRouter } from "react-router";
import { PinScreen } from "../screens/signIn/PinScreen.tsx";
import { SignInScreen } from "../screens/signIn/SignInScreen.tsx";
import { TodayScreen } from "../screens/today/TodayScreen.tsx";
import { Gate } from "./Gate.tsx";
import { LostScreen } from "./LostScreen.tsx";
import { Shell } from "./Shell.tsx";

/** The screens by address. Sign-in and Today come with the first load; the rest are fetched when first opened. */
export const router = createBrowserRouter([
  { path: "/sign-in", element: <SignInScreen />, errorElement: <LostScreen /> },
  { path: "/pin", element: <PinScreen />, errorElement: <LostScreen /> },
  {
    path: "/o/:token",
    errorElement: <LostScreen />,
    lazy: async () => ({ Component: (await import("../screens/owner/OwnerScreen.tsx")).OwnerScreen }),
  },
  {
    path: "/set-up",
    errorElement: <LostScreen />,
    lazy: async () => ({ Component: (await import("../screens/setUp/SetUpScreen.tsx")).SetUpScreen }),
  },
  {
    path: "/join",
    errorElement: <LostScreen />,
    lazy: async () => ({ Component: (await import("../screens/signIn/JoinScreen.tsx")).JoinScreen }),
  },
  {
    path: "/verify",
    errorElement: <LostScreen />,
    lazy: async () => ({ Component: (await import("../screens/verify/VerifyScreen.tsx")).VerifyScreen }),
  },
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
            path: "/boats/new",
            lazy: async () => ({ Component: (await import("../screens/boats/NewBoatScreen.tsx")).NewBoatScreen }),
          },
          {
            path: "/boats/stock",
            lazy: async () => ({ Component: (await import("../screens/stock/StockScreen.tsx")).StockScreen }),
          },
          {
            path: "/boats/:boat/rig",
            lazy: async () => ({ Component: (await import("../screens/rig/RigScreen.tsx")).RigScreen }),
          },
          {
            path: "/boats/:boat/tow",
            lazy: async () => ({ Component: (await import("../screens/tow/TowScreen.tsx")).TowScreen }),
          },
          {
            path: "/boats/:boat/ramp",
            lazy: async () => ({ Component: (await import("../screens/ramp/RampScreen.tsx")).RampScreen }),
          },
          {
            path: "/boats/:boat/finder",
            lazy: async () => ({ Component: (await import("../screens/finder/FinderScreen.tsx")).FinderScreen }),
          },
          {
            path: "/boats/:boat/power",
            lazy: async () => ({ Component: (await import("../screens/power/PowerScreen.tsx")).PowerScreen }),
          },
          {
            path: "/boats/:boat/runs",
            lazy: async () => ({ Component: (await import("../screens/runs/RunsScreen.tsx")).RunsScreen }),
          },
          {
            path: "/boats/:boat",
            lazy: async () => ({ Component: (await import("../screens/boat/BoatScreen.tsx")).BoatScreen }),
          },
          {
            path: "/library",
            lazy: async () => ({ Component: (await import("../screens/library/LibraryScreen.tsx")).LibraryScreen }),
          },
          {
            path: "/library/new",
            lazy: async () => ({ Component: (await import("../screens/library/LibraryScreen.tsx")).LibraryScreen }),
          },
          {
            path: "/library/topic/:topic",
            lazy: async () => ({ Component: (await import("../screens/library/LibraryScreen.tsx")).LibraryScreen }),
          },
          {
            path: "/library/schools",
            lazy: async () => ({ Component: (await import("../screens/library/SchoolsScreen.tsx")).SchoolsScreen }),
          },
          {
            path: "/library/styles",
            lazy: async () => ({ Component: (await import("../screens/library/StylesScreen.tsx")).StylesScreen }),
          },
          {
            path: "/library/templates",
            lazy: async () => ({ Component: (await import("../screens/library/TemplatesScreen.tsx")).TemplatesScreen }),
          },
          {
            path: "/library/packs",
            lazy: async () => ({ Component: (await import("../screens/library/PacksScreen.tsx")).PacksScreen }),
          },
          {
            path: "/library/glossary",
            lazy: async () => ({ Component: (await import("../screens/library/GlossaryScreen.tsx")).GlossaryScreen }),
          },
          {
            path: "/library/languages",
            lazy: async () => ({
              Component: (await import("../screens/library/LanguagesScreen.tsx")).LanguagesScreen,
            }),
          },
          {
            path: "/deliveries/:delivery",
            lazy: async () => ({ Component: (await import("../screens/plan/PlanScreen.tsx")).PlanScreen }),
          },
          {
            path: "/deliveries/:delivery/power",
            lazy: async () => ({ Component: (await import("../screens/power/PowerScreen.tsx")).WalkPowerScreen }),
          },
          {
            path: "/deliveries/:delivery/steps/:sequence",
            lazy: async () => ({
              Component: (await import("../screens/sequence/SequenceScreen.tsx")).SequenceScreen,
            }),
          },
          {
            path: "/deliveries/:delivery/trip",
            lazy: async () => ({ Component: (await import("../screens/trip/TripScreen.tsx")).TripScreen }),
          },
          {
            path: "/deliveries/:delivery/ready",
            lazy: async () => ({ Component: (await import("../screens/ready/ReadyScreen.tsx")).ReadyScreen }),
          },
          {
            path: "/aftercare",
            lazy: async () => ({ Component: (await import("../screens/aftercare/CareScreen.tsx")).CareScreen }),
          },
          {
            path: "/aftercare/calls",
            lazy: async () => ({ Component: (await import("../screens/aftercare/CallsScreen.tsx")).CallsScreen }),
          },
          {
            path: "/aftercare/owed",
            lazy: async () => ({ Component: (await import("../screens/aftercare/OwedScreen.tsx")).OwedScreen }),
          },
          {
            path: "/aftercare/workshop",
            lazy: async () => ({ Component: (await import("../screens/workshop/WorkshopScreen.tsx")).WorkshopScreen }),
          },
          {
            path: "/welcome",
            lazy: async () => ({ Component: (await import("../screens/setUp/WelcomeScreen.tsx")).WelcomeScreen }),
          },
          {
            path: "/messages",
            lazy: async () => ({
              Component: (await import("../screens/messages/MessagesScreen.tsx")).MessagesScreen,
            }),
          },
          {
            path: "/more",
            lazy: async () => ({ Component: (await import("../screens/store/MoreScreen.tsx")).MoreScreen }),
          },
          {
            path: "/account",
            lazy: async () => ({ Component: (await import("../screens/account/AccountScreen.tsx")).AccountScreen }),
          },
          {
            path: "/staff",
            lazy: async () => ({ Component: (await import("../screens/store/StaffScreen.tsx")).StaffScreen }),
          },
          {
            path: "/store",
            lazy: async () => ({ Component: (await import("../screens/store/StoreScreen.tsx")).StoreScreen }),
          },
          {
            path: "/rights",
            lazy: async () => ({ Component: (await import("../screens/store/RightsScreen.tsx")).RightsScreen }),
          },
          {
            path: "/reports",
            lazy: async () => ({ Component: (await import("../screens/reports/ReportsScreen.tsx")).ReportsScreen }),
          },
          {
            path: "/audit",
            lazy: async () => ({ Component: (await import("../screens/store/AuditScreen.tsx")).AuditScreen }),
          },
          {
            path: "/bundles",
            lazy: async () => ({ Component: (await import("../screens/bundle/BundleScreen.tsx")).BundleScreen }),
          },
          {
            path: "/deliveries/:delivery/close",
            lazy: async () => ({ Component: (await import("../screens/close/CloseScreen.tsx")).CloseScreen }),
          },
          {
            path: "/deliveries/:delivery/buyers/:person",
            lazy: async () => ({ Component: (await import("../screens/buyer/BuyerScreen.tsx")).BuyerScreen }),
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
