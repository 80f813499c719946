// What belongs to the person and not to the design: units, light or dark, the depth axis and snapping, in this browser.
import { createContext, useContext } from "react";
import type { UnitChoice } from "./ui/units";

export interface Settings {
  units: UnitChoice;
  dark: boolean;
  /** Depth axis: along hole, or true vertical depth with the section as a vertical section. */
  axis: "md" | "tvd";
  /** The mud window as equivalent mud weights or as pressures. */
  window: "emw" | "pressure";
  /** Whether what is dragged snaps to boundaries and round numbers; Alt does the opposite while held. */
  snap: boolean;
  /** Widths [px] of the columns of tables, by the table's title, where they were dragged. */
  widths: Record<string, Record<string, number>>;
}

export interface Preferences extends Settings {
  prefer: (part: Partial<Settings>) => void;
}

export const PreferencesContext = createContext<Preferences | null>(null);

export function usePreferences(): Preferences {
  const preferences = useContext(PreferencesContext);
  if (preferences === null) throw new Error("outside the preferences");
  return preferences;
}

const KEY = "knollstack.preferences";

export function storedSettings(): Settings {
  const usual: Settings = {
    units: { system: "field", mixed: {} },
    dark: matchMedia("(prefers-color-scheme: dark)").matches,
    axis: "md",
    window: "emw",
    snap: true,
    widths: {},
  };
  try {
    return { ...usual, ...(JSON.parse(localStorage.getItem(KEY) ?? "{}") as Partial<Settings>) };
  } catch {
    return usual;
  }
}

export function storeSettings(settings: Settings): void {
  localStorage.setItem(KEY, JSON.stringify(settings));
}
