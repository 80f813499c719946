// What the palette finds beside actions: zones, fields, tabs, formulas, files.
import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { useNavigate, useParams } from "react-router";
import { listFormulas } from "../design/api";
import { useBench, useDocument, useSnapshot } from "../design/context";
import { useReference } from "../design/reference";
import type { Target } from "../design/types";
import { STEPS } from "../steps/registry";
import { tabsOf } from "../steps/tabs";
import { useUnits } from "../ui/units";
import type { Action } from "./actions";

const EXPORTS: Readonly<Record<string, Target>> = {
  "/trajectory/stations": "stations",
  "/ground/zones": "zones",
  "/ground/pore": "pore",
  "/ground/fracture": "fracture",
  "/ground/stability": "stability",
  "/ground/overburden": "overburden",
  "/ground/temperature": "temperature",
  "/ground/leak_off_tests": "leak_off_tests",
  "/strings": "strings",
  "/pipes": "pipes",
  "/stock": "stock",
};

export function useFound(): Action[] {
  const navigate = useNavigate();
  const { designId } = useParams();
  const { session, selected, goTo } = useBench();
  const zones = useDocument((d) => d.ground.zones.map((z) => z.name).join("\n"));
  const saved = useSnapshot("save") === "saved";
  const reference = useReference();
  const units = useUnits();
  const { data: formulas } = useQuery({ queryKey: ["formulas"], queryFn: listFormulas, staleTime: Infinity });
  return useMemo<Action[]>(() => {
    const file = (id: string, title: string, path: string): Action => ({
      id: `file-${id}`,
      title: saved ? title : `${title} (once the last edit is saved)`,
      group: "Files",
      run: () => {
        if (saved) window.location.assign(`/api/designs/${session.id}/${path}`);
      },
    });
    const files = [
      file("sheet", "Program sheet, PDF", `sheet?${units.query}`),
      file("barriers", "Well barriers, a page a state, PDF", `barriers.pdf?${units.query}`),
      file("well", "Well file", "file"),
      ...Object.entries(EXPORTS).map(([path, target]) =>
        file(target, `${reference.words(path)} as CSV`, `tables/${target}?${units.query}`),
      ),
    ];
    const tabs = STEPS.flatMap((step) =>
      tabsOf(step).map<Action>(([tab, title]) => ({
        id: `tab-${step}-${tab}`,
        title: `${reference.title(step)}: ${title}`,
        group: "Go to",
        run: () => void navigate(`/designs/${designId}/${step}?string=${selected + 1}&tab=${tab}`),
      })),
    );
    const places = (zones === "" ? [] : zones.split("\n")).map<Action>((name, i) => ({
      id: `zone-${i}`,
      title: name,
      group: "Zones",
      run: () => {
        goTo("ground", `/ground/zones/${i}/name`);
      },
    }));
    const fields = reference.placed(selected).map<Action>(({ path }) => ({
      id: `field-${path}`,
      title: reference.words(path),
      group: "Fields",
      run: () => {
        goTo(reference.stepOf(path), path);
      },
    }));
    const equations = (formulas ?? []).map<Action>((f) => ({
      id: `formula-${f.name}`,
      title: f.title,
      group: "Formulas",
      run: () => void navigate(`/formulas/${f.name}`),
    }));
    return [...tabs, ...files, ...places, ...fields, ...equations];
  }, [navigate, designId, session, selected, goTo, zones, saved, reference, units, formulas]);
}
