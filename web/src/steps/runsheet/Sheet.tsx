// The whole sheet: searched, filtered, edited, and held beside its last issue.
import { FileText, Plus, Table2 } from "lucide-react";
import { useMemo, useState } from "react";
import { useBench, useDocument, useEvaluated } from "../../design/context";
import type { LineChange, LineRow, SheetDetail } from "../../design/types";
import { Button } from "../../ui/Button";
import { Empty } from "../../ui/Panel";
import { useUnits } from "../../ui/units";
import { DesignPapers } from "./DesignPapers";
import { addStep } from "./edits";
import type { Filter } from "./filter";
import { ALL, sectionOf, shown } from "./filter";
import { Issued } from "./Issued";
import { Lines } from "./Lines";
import { useChanges, useIssues, useSheet } from "./useSheet";

const PAPERS = [
  { file: "run-sheet.pdf", text: "PDF", Icon: FileText },
  { file: "run-sheet.csv", text: "CSV", Icon: Table2 },
] as const;

export function Sheet({ place }: { place: string }) {
  const detail = useSheet();
  const issues = useIssues();
  const changes = useChanges(issues);
  if (detail === undefined) return <Empty>The sheet is being made.</Empty>;
  return <Shown key={place} detail={detail} changes={changes} place={place} issued={(issues?.length ?? 0) > 0} />;
}

interface ShownProps {
  detail: SheetDetail;
  changes: ReadonlyMap<string, LineChange> | undefined;
  place: string;
  issued: boolean;
}

/** The step of a place that was gone to: the row of an edit, or an own step. */
function useAtPlace(place: string): string {
  return useDocument((d) => {
    const [, , list = "", at = ""] = place.split("/");
    if (list === "edits") return d.runsheet.edits?.[Number(at)]?.step ?? "";
    if (list === "steps") return `own/${d.runsheet.steps?.[Number(at)]?.id ?? ""}`;
    return "";
  });
}

function Shown({ detail, changes, place, issued }: ShownProps) {
  const units = useUnits();
  const { session } = useBench();
  const gone = useAtPlace(place);
  const [filter, setFilter] = useState<Filter>(ALL);
  const [picked, setPicked] = useState<string>(gone);
  const text = (line: LineRow) => `${units.words(line.text)} ${units.words(line.caution)}`;
  const rows = useMemo(
    () => shown(detail.lines, filter, text, changes),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- text follows the units
    [detail, filter, changes, units.key],
  );
  const add = () => {
    const at = detail.lines.find((l) => l.key === picked) ?? detail.lines[detail.lines.length - 1];
    const { id, changes: made } = addStep(session.snapshot().document, at);
    session.edit(made);
    setFilter(ALL);
    setPicked(`own/${id}`);
  };
  return (
    <div className="flex h-full min-h-0 flex-col stacked:h-[80vh]">
      <Bar detail={detail} filter={filter} onFilter={setFilter} count={rows.length} issued={issued} />
      <div className="mb-1.5 flex shrink-0 flex-wrap items-center gap-1.5">
        <Button onClick={add}>
          <Plus size={13} aria-hidden /> Own step
        </Button>
        <DesignPapers papers={PAPERS} />
        <Issued changes={changes} />
      </div>
      <Lines lines={detail.lines} shown={rows} changes={changes} picked={picked} onPick={setPicked} />
    </div>
  );
}

interface BarProps {
  detail: SheetDetail;
  filter: Filter;
  onFilter: (filter: Filter) => void;
  count: number;
  issued: boolean;
}

function Bar({ detail, filter, onFilter, count, issued }: BarProps) {
  const units = useUnits();
  const result = useEvaluated((e) => e.runsheet);
  const sections = useMemo(() => {
    const found = new Map<string, string>();
    for (const line of detail.lines) {
      const key = sectionOf(line);
      if (!found.has(key))
        found.set(key, key === "site" ? "Before the spud" : key === "end" ? "End of the well" : units.words(line.section));
    }
    return [...found];
  }, [detail, units]);
  const kinds = useMemo(() => [...new Set(detail.lines.map((l) => l.kind))], [detail]);
  const set = (patch: Partial<Filter>) => {
    onFilter({ ...filter, ...patch });
  };
  const all = detail.lines.length;
  return (
    <div
      className="mb-1.5 flex shrink-0 flex-wrap items-center gap-x-1.5 gap-y-1 text-[12.5px]"
      role="search"
      aria-label="Steps of the sheet"
    >
      <input
        type="search"
        aria-label="Search the sheet"
        placeholder="Search"
        className="field w-28"
        value={filter.words}
        onChange={(event) => {
          set({ words: event.target.value });
        }}
      />
      <Pick label="Section" value={filter.section} options={[["", "All sections"], ...sections]} onPick={(section) => set({ section })} />
      <Pick
        label="Kind of work"
        value={filter.kind}
        options={[["", "All kinds"], ...kinds.map((k) => [k, k] as const)]}
        onPick={(kind) => set({ kind })}
      />
      <Pick
        label="Only"
        value={filter.only}
        options={[
          ["", "All steps"],
          ["hold", "Hold-points"],
          ["mine", "Edited by hand"],
          ...(issued ? ([["changed", "Changed since issue"]] as const) : []),
        ]}
        onPick={(only) => set({ only: only as Filter["only"] })}
      />
      <span className="ml-auto text-[12px] text-mute" role="status">
        {count === all ? `${all} steps` : `${count} of ${all} steps`}
        {result?.held ? `, ${result.held} held` : ""}
        {result?.broken ? `, ${result.broken} against an order rule` : ""}
      </span>
    </div>
  );
}

interface PickProps {
  label: string;
  value: string;
  options: readonly (readonly [string, string])[];
  onPick: (value: string) => void;
}

export function Pick({ label, value, options, onPick }: PickProps) {
  return (
    <select
      aria-label={label}
      className="field max-w-36"
      value={value}
      onChange={(event) => {
        onPick(event.target.value);
      }}
    >
      {options.map(([key, text]) => (
        <option key={key} value={key}>
          {text}
        </option>
      ))}
    </select>
  );
}
