// The name that goes with what is saved: given once, kept in this browser. Beyond one's own machine the account says it.
import { useSyncExternalStore } from "react";

const KEY = "knollstack.name";
const listeners = new Set<() => void>();

export function personName(): string {
  return localStorage.getItem(KEY) ?? "";
}

export function keepName(name: string): void {
  localStorage.setItem(KEY, name.trim());
  listeners.forEach((listener) => {
    listener();
  });
}

export function usePersonName(): string {
  return useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, personName);
}

const BROWSER = "knollstack.browser";

/** Tells this browser from others, so that one person's long work does not stand before another's. */
export function browserId(): string {
  const known = localStorage.getItem(BROWSER);
  if (known !== null) return known;
  const made = crypto.getRandomValues(new Uint32Array(3)).join("-");
  localStorage.setItem(BROWSER, made);
  return made;
}
