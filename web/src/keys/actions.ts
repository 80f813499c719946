// Everything that can be done in the workbench, once: for the palette, the keys and the list of keys.
import { useMemo } from "react";
import { useNavigate, useParams } from "react-router";
import { adoption, useBench, useDocument, useEvaluated } from "../design/context";
import { usePreferences } from "../preferences";
import { useReference } from "../design/reference";
import { STEPS } from "../steps/registry";
import { useUnits } from "../ui/units";

export const GROUPS = ["Go to", "Design", "Findings", "View", "Help", "Files", "Zones", "Fields", "Formulas"] as const;
type Group = (typeof GROUPS)[number];

export interface Action {
  id: string;
  title: string;
  group: Group;
  /** In tinykeys' words; a single character works only while single keys are on. */
  keys?: string;
  run: () => void;
}

export function useActions(showKeys: () => void, showHelp: () => void): Action[] {
  const navigate = useNavigate();
  const { designId } = useParams();
  const { session, selected, select, goTo } = useBench();
  const inForce = useEvaluated((e) => e.strings);
  const found = useEvaluated((e) => e.findings);
  const undecided = useDocument((d) => d.strings.length === 0);
  const { axis, dark, snap, prefer } = usePreferences();
  const units = useUnits();
  const reference = useReference();
  return useMemo<Action[]>(() => {
    const { system } = units.choice;
    const open = (path: string) => () => void navigate(path);
    const steps = STEPS.map<Action>((step, i) => ({
      id: `step-${step}`,
      title: reference.title(step),
      group: "Go to",
      keys: String(i + 1),
      run: open(`/designs/${designId}/${step}?string=${selected + 1}`),
    }));
    const strings = (inForce ?? []).map<Action>((s, i) => ({
      id: `string-${i}`,
      title: `Select: ${s.od_in === null ? s.role : units.text(s.od_in, "size")} ${s.role}`,
      group: "Design",
      run: () => {
        select(i);
      },
    }));
    const findings = (found ?? []).map<Action>((f, i) => ({
      id: `finding-${i}`,
      title: `${units.words(f.subject)}: ${units.words(f.message)}`,
      group: "Findings",
      run: () => {
        goTo(f.step, f.place);
      },
    }));
    const design: Action[] = [
      {
        id: "undo",
        title: "Undo",
        group: "Design",
        keys: "$mod+z",
        run: () => {
          session.undo();
        },
      },
      {
        id: "redo",
        title: "Redo",
        group: "Design",
        keys: "$mod+Shift+z",
        run: () => {
          session.redo();
        },
      },
      ...(undecided && inForce?.length
        ? [
            {
              id: "adopt",
              title: "Adopt the proposed program",
              group: "Design" as const,
              run: () => {
                const { document, evaluation } = session.snapshot();
                session.edit(adoption(document, evaluation));
              },
            },
          ]
        : []),
    ];
    const view: Action[] = [
      { id: "history", title: "History of this design", group: "Go to", run: open(`/designs/${designId}/history`) },
      { id: "wells", title: "All wells", group: "Go to", run: open("/") },
      { id: "formulas", title: "Formulas", group: "Go to", run: open("/formulas") },
      {
        id: "units",
        title: system === "field" ? "Metric units" : "Field units",
        group: "View",
        keys: "u",
        run: () => {
          prefer({ units: { system: system === "field" ? "metric" : "field", mixed: {} } });
        },
      },
      {
        id: "axis",
        title: axis === "md" ? "Depth axis in TVD, vertical section" : "Depth axis along hole",
        group: "View",
        keys: "a",
        run: () => {
          prefer({ axis: axis === "md" ? "tvd" : "md" });
        },
      },
      {
        id: "snap",
        title: snap ? "Drag without snapping" : "Snap what is dragged",
        group: "View",
        keys: "s",
        run: () => {
          prefer({ snap: !snap });
        },
      },
      {
        id: "dark",
        title: dark ? "Light" : "Dark",
        group: "View",
        run: () => {
          prefer({ dark: !dark });
        },
      },
      { id: "help", title: "Help: start guide, ways of working, terms", group: "Help", run: showHelp },
      { id: "keys", title: "List of keys", group: "Help", keys: "?", run: showKeys },
    ];
    return [...steps, ...design, ...strings, ...findings, ...view];
  }, [
    navigate,
    designId,
    inForce,
    found,
    undecided,
    session,
    selected,
    select,
    goTo,
    units,
    axis,
    dark,
    snap,
    prefer,
    showKeys,
    showHelp,
    reference,
  ]);
}
