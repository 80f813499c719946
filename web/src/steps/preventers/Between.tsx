// From this string to the next: what is pulled, changed, nippled down, lifted and nippled up again, in order.
import type { StackRow, Words } from "../../design/types";
import { Empty } from "../../ui/Panel";
import { useUnits } from "../../ui/units";

export function Between({ row }: { row: StackRow }) {
  const units = useUnits();
  if (row.steps.length === 0) return <Empty>The last stack stays until the tree goes on; barriers are counted before it comes off.</Empty>;
  return (
    <>
      <ol className="list-decimal pl-5 text-[12.5px] leading-relaxed">
        {row.steps.map((step, i) => (
          <li key={i}>{units.words(step as Words)}</li>
        ))}
      </ol>
      <p className="mt-2 text-[12px] text-mute">
        No preventer comes off before policy&apos;s barriers are in place and verified. Nobody works under a lifted stack.
      </p>
    </>
  );
}
