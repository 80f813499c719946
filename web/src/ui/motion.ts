// Whether things may be seen to move: the person's own setting of the system.
import { useSyncExternalStore } from "react";

const LESS = matchMedia("(prefers-reduced-motion: reduce)");

export function useMotion(): boolean {
  return useSyncExternalStore(listen, () => !LESS.matches);
}

function listen(changed: () => void): () => void {
  LESS.addEventListener("change", changed);
  return () => LESS.removeEventListener("change", changed);
}
