// What belongs to the person and not to the design: units and light or dark, kept in this browser.
import { createContext, useContext } from "react";
import type { System } from "./design/types";

export interface Preferences {
  system: System;
  dark: boolean;
  setSystem: (system: System) => void;
  setDark: (dark: boolean) => void;
}

export const PreferencesContext = createContext<Preferences | null>(null);

export function usePreferences(): Preferences {
  const preferences = useContext(PreferencesContext);
  if (preferences === null) throw new Error("outside the preferences");
  return preferences;
}

export function storedSystem(): System {
  return localStorage.getItem("knollstack.units") === "metric" ? "metric" : "field";
}

export function storedDark(): boolean {
  const stored = localStorage.getItem("knollstack.dark");
  return stored === null ? matchMedia("(prefers-color-scheme: dark)").matches : stored === "yes";
}
