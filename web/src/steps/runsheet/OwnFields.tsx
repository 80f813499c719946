// A step of the person's own: its words, kind, time, caution, and who signs.
import { useDocument } from "../../design/context";
import { DocCheck, DocChoice, DocNumber, DocText, FieldLabel } from "../../ui/DocField";
import { useUnits } from "../../ui/units";

export function OwnFields({ id }: { id: string }) {
  const at = useDocument((d) => d.runsheet.steps?.findIndex((s) => s.id === id) ?? -1);
  const units = useUnits();
  if (at < 0) return null;
  const path = `/runsheet/steps/${at}`;
  return (
    <div className="bordered mt-1 grid max-w-xl grid-cols-[6rem_1fr] items-center gap-x-2 border-l-2 border-petrol/40 pl-2" data-own={id}>
      <FieldLabel path={`${path}/text`} />
      <DocText path={`${path}/text`} />
      <FieldLabel path={`${path}/kind`} />
      <DocChoice path={`${path}/kind`} />
      <FieldLabel path={`${path}/hours`} />
      <span className="flex items-center gap-1.5">
        <span className="w-24">
          <DocNumber path={`${path}/hours`} align="left" />
        </span>
        <span className="text-mute">{units.unit("hours")}</span>
      </span>
      <FieldLabel path={`${path}/caution`} />
      <DocText path={`${path}/caution`} />
      <FieldLabel path={`${path}/signs`} />
      <DocText path={`${path}/signs`} />
      <FieldLabel path={`${path}/hold`} />
      <span>
        <DocCheck path={`${path}/hold`} />
      </span>
    </div>
  );
}
