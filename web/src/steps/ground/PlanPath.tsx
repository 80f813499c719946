// A path from its shape: kick-off, rates and target in, survey stations out; they replace the table as one undo step.
import { useState } from "react";
import * as api from "../../design/api";
import { useBench } from "../../design/context";
import type { PathPlan, Quantity } from "../../design/types";
import { Button } from "../../ui/Button";
import { Modal } from "../../ui/Modal";
import { OpensDialog } from "../../ui/OpensDialog";
import { parseNumber } from "../../ui/numbers";
import { Term } from "../../ui/Term";
import { useUnits } from "../../ui/units";

type Key = Exclude<keyof PathPlan, "shape">;
interface Entry {
  key: Key;
  label: string;
  quantity?: Quantity;
  unit?: string;
  shapes: readonly PathPlan["shape"][];
}

const BENT = ["build and hold", "S", "horizontal"] as const;
const ENTRIES: readonly Entry[] = [
  { key: "target_tvd_ft", label: "Target TVD", quantity: "depth", shapes: ["vertical", ...BENT] },
  { key: "target_departure_ft", label: "Target departure", quantity: "depth", shapes: ["build and hold", "S"] },
  { key: "azimuth_deg", label: "Azimuth", quantity: "angle", shapes: BENT },
  { key: "kick_off_ft", label: "Kick-off", quantity: "depth", shapes: BENT },
  { key: "build_deg_100ft", label: "Build rate", unit: "°/100 ft", shapes: BENT },
  { key: "drop_deg_100ft", label: "Drop rate", unit: "°/100 ft", shapes: ["S"] },
  { key: "end_inclination_deg", label: "Inclination at the target", quantity: "angle", shapes: ["S"] },
  { key: "lateral_ft", label: "Length of the horizontal", quantity: "depth", shapes: ["horizontal"] },
];
const USUAL: PathPlan = {
  shape: "build and hold",
  target_tvd_ft: 10_000,
  target_departure_ft: 3000,
  azimuth_deg: 0,
  kick_off_ft: 2000,
  build_deg_100ft: 3,
  drop_deg_100ft: 2,
  end_inclination_deg: 0,
  lateral_ft: 2000,
};

export function PlanPath() {
  return <OpensDialog label="Plan a path…">{(close) => <PlanDialog close={close} />}</OpensDialog>;
}

function PlanDialog({ close }: { close: () => void }) {
  const { session } = useBench();
  const units = useUnits();
  const [shape, setShape] = useState<PathPlan["shape"]>("build and hold");
  const [texts, setTexts] = useState<Partial<Record<Key, string>>>({});
  const [wrong, setWrong] = useState("");
  const entries = ENTRIES.filter((e) => e.shapes.includes(shape));
  const shownText = (entry: Entry) =>
    texts[entry.key] ?? (entry.quantity ? units.entry(USUAL[entry.key], entry.quantity) : String(USUAL[entry.key]));
  const plan = async () => {
    const asked: PathPlan = { ...USUAL, shape };
    for (const entry of entries) {
      const value = entry.quantity ? units.parse(shownText(entry), entry.quantity) : parseNumber(shownText(entry));
      if (value === null) {
        setWrong(`${entry.label}: "${shownText(entry)}" is not a number.`);
        return;
      }
      asked[entry.key] = value;
    }
    try {
      const { stations } = await api.planPath(asked);
      session.edit([{ path: "/trajectory/stations", value: stations }]);
      close();
    } catch (error) {
      const problem = error instanceof api.ProblemError ? error.problem : null;
      setWrong(problem?.faults.map((f) => `${f.value}: ${f.expected}`).join(". ") ?? "The server is not reached.");
    }
  };
  return (
    <Modal open onOpenChange={close} title="Plan a path" width="w-[26rem]">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void plan();
        }}
      >
        <label className="mb-1 flex items-center justify-between">
          Shape
          <select
            className="w-40 rounded border border-rule bg-sheet px-1"
            value={shape}
            onChange={(event) => {
              setShape(event.target.value as PathPlan["shape"]);
            }}
          >
            {["vertical", ...BENT].map((s) => (
              <option key={s}>{s}</option>
            ))}
          </select>
        </label>
        {entries.map((entry) => (
          <label key={entry.key} className="grid grid-cols-[1fr_7rem_4.5rem] items-center gap-1 py-px">
            <Term>{entry.label}</Term>
            <input
              className="cell border-rule! text-right"
              aria-label={entry.label}
              value={shownText(entry)}
              onChange={(event) => {
                setTexts({ ...texts, [entry.key]: event.target.value });
                setWrong("");
              }}
            />
            <span className="text-mute">{entry.unit ?? units.unit(entry.quantity!)}</span>
          </label>
        ))}
        {wrong && (
          <p role="alert" className="mt-1 text-brick">
            {wrong}
          </p>
        )}
        <p className="mt-3 flex gap-2">
          <Button kind="act" type="submit">
            Replace the stations
          </Button>
          <Button onClick={close}>Leave them</Button>
        </p>
      </form>
    </Modal>
  );
}
