// What can still be done from today's depth: the next shoe, the kick tolerance now, the sizes that pass, a spare string.
import { useSnapshot } from "../../design/context";
import { useUnits } from "../../ui/units";
import { Titled } from "../../ui/Titled";
import { useLogbook } from "./useLog";

export function Free() {
  const units = useUnits();
  const { data, behind } = useLogbook();
  const free = data?.detail.free;
  const supposed = useSnapshot("whatIf") !== null;
  if (data === undefined) return <p className="text-mute">Looking at what is still free…</p>;
  if (free == null) return <p className="text-mute">Every string of the plan stands: no shoe is left to be set.</p>;
  const at = (ft: number) => units.number(ft, "depth");
  const unit = units.unit("depth");
  return (
    <Titled title={supposed ? "Still free, with what is supposed" : "Still free"} note={behind ? "working…" : undefined}>
      <dl className="grid grid-cols-[9rem_1fr] gap-x-2 gap-y-1 text-[13px]" aria-label="Still free">
        <dt className="text-mute">{units.words(free.words)}</dt>
        <dd>
          {free.shoes.length === 0
            ? free.looked === null
              ? "not judged: no depth is left between today’s and the next shoe"
              : `at no depth from ${at(free.looked.top_md_ft)} to ${at(free.looked.base_md_ft)} ${unit}`
            : free.shoes.map((s) => `${at(s.top_md_ft)} to ${at(s.base_md_ft)} ${unit}`).join("; ")}
          {free.why_not.length > 0 && (
            <span className="block text-[12px] text-mute">
              {free.shoes.length === 0 ? "At the first depth: " : "Deeper: "}
              {units.words(free.why_not)}
            </span>
          )}
        </dd>
        <dt className="text-mute">Kick tolerance now</dt>
        <dd>
          {free.kick_needed_bbl === null
            ? "none: no shoe stands that can be shut in"
            : free.kick_limited === false
              ? "no limit: no kick breaks the rock"
              : `${units.text(free.kick_bbl, "volume")}, policy asks ${units.text(free.kick_needed_bbl, "volume")}`}
        </dd>
        <dt className="text-mute">Sizes to come</dt>
        <dd>
          {free.remaining
            .map((s) =>
              s.hole_in === null ? units.text(s.od_in, "size") : `${units.text(s.hole_in, "size")} hole, ${units.text(s.od_in, "size")}`,
            )
            .join("; ")}
          <span className="block text-[12px] text-mute">
            {free.chains === 1 ? "1 chain of sizes goes" : `${free.chains} chains of sizes go`} on from what stands
          </span>
        </dd>
        <dt className="text-mute">Spare string</dt>
        <dd>
          {free.spare === null
            ? "none: a contingency string would take a size"
            : `${units.text(free.spare.od_in, "size")} in ${units.text(free.spare.hole_in, "size")} hole`}
        </dd>
      </dl>
    </Titled>
  );
}
