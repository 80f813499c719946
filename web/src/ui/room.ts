// How much room the window gives: everything beside one another; the margin as a drawer; or one below the other.
import { useSyncExternalStore } from "react";

export type Room = "wide" | "drawer" | "stacked";

// a printed page is laid out as the wide screen is, whatever its paper
const DRAWER = matchMedia("screen and (max-width: 1179.9px)");
const STACKED = matchMedia("screen and (max-width: 899.9px)");

function subscribe(told: () => void) {
  for (const query of [DRAWER, STACKED]) query.addEventListener("change", told);
  return () => {
    for (const query of [DRAWER, STACKED]) query.removeEventListener("change", told);
  };
}

export function useRoom(): Room {
  return useSyncExternalStore(subscribe, () => (STACKED.matches ? "stacked" : DRAWER.matches ? "drawer" : "wide"));
}
