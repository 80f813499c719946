// What shear rams cut at the pressure of the closing unit, and how a drill string hangs off.
import { useDocument } from "../../design/context";
import type { StackRow, Words } from "../../design/types";
import { FieldRow } from "../../ui/DocField";
import { Facts } from "../../ui/Facts";
import { Headline } from "../../ui/Headline";
import { useUnits } from "../../ui/units";

export function Shearing({ row }: { row: StackRow }) {
  const units = useUnits();
  const underSea = useDocument((d) => d.site.setting === "subsea");
  return (
    <div className="grid grid-cols-1 gap-y-4">
      <section aria-label="Shear">
        <h3 className="mb-0.5 text-[13px] font-semibold">Shear</h3>
        <FieldRow path="/policy/preventers/drill_pipe_grade" />
        <FieldRow path="/policy/preventers/shear_factor" />
        {row.shear.length === 0 ? (
          <p className="py-1 text-mute">No shear rams in this stack.</p>
        ) : (
          <Facts
            label="Shear"
            heads={[
              { title: "Pipe" },
              { title: "Force", unit: units.unit("force") },
              { title: "Takes", unit: units.unit("pressure") },
              { title: "Has", unit: units.unit("pressure") },
              { title: "Cuts" },
            ]}
            bad={(r) => row.shear[r]!.shears === false}
            rows={row.shear.map((s) => [
              <span key="n">
                {units.words(s.what as Words)}
                <span className="block text-[11.5px] text-mute">by {row.elements[s.element]!.title}</span>
              </span>,
              units.number(s.force_lbf, "force"),
              s.needed_psi === null ? (
                "unknown"
              ) : (
                <Headline key="p" working={s.working} title="shear pressure">
                  {units.number(s.needed_psi, "pressure")}
                </Headline>
              ),
              units.number(s.available_psi, "pressure"),
              s.shears === null ? "unknown" : s.shears ? "yes" : s.widest_in === null ? "no" : "too wide",
            ])}
          />
        )}
        <p className="mt-1 text-[12px] text-mute">
          Pipe body only, under{" "}
          {underSea ? "the pressure at the wellhead on the sea floor, over that of the sea" : "the greatest surface pressure"}: tool joints
          and collars are not cut. Space out first.
        </p>
      </section>
      <HangOff row={row} />
    </div>
  );
}

function HangOff({ row }: { row: StackRow }) {
  const units = useUnits();
  if (row.hang_off.length === 0) return null;
  return (
    <section aria-label="Hang-off">
      <h3 className="mb-0.5 text-[13px] font-semibold">Hang-off</h3>
      <Facts
        label="Hang-off"
        heads={[
          { title: "String of" },
          { title: "Weighs", unit: units.unit("force") },
          { title: "Ram hangs", unit: units.unit("force") },
          { title: "Tool joint at", unit: units.unit("length") },
        ]}
        bad={(r) => (row.hang_off[r]!.load_lbf ?? 0) > (row.hang_off[r]!.capacity_lbf ?? Infinity)}
        rows={row.hang_off.map((h) => [
          <span key="n">
            {units.words(h.what as Words)}
            <span className="block text-[11.5px] text-mute">on {row.elements[h.element]!.title}</span>
          </span>,
          h.load_lbf === null ? (
            "unknown"
          ) : (
            <Headline key="l" working={h.working} title="hang-off load">
              {units.number(h.load_lbf, "force")}
            </Headline>
          ),
          units.number(h.capacity_lbf, "force"),
          units.number(h.tool_joint_md_ft, "length"),
        ])}
      />
      <p className="mt-1 text-[12px] text-mute">From the rotary: a tool joint set down there stands on the ram, clear of those above.</p>
    </section>
  );
}
