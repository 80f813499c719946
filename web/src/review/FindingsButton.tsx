// Where the margin is not beside the bench: how many findings there are, and the way to them.
import { useEvaluated, useSnapshot } from "../design/context";
import { Button } from "../ui/Button";
import { Counts } from "./Margin";

export function FindingsButton({ open, onClick }: { open: boolean | undefined; onClick: () => void }) {
  const findings = useEvaluated((e) => e.findings);
  const faulty = useSnapshot("faults").length > 0;
  return (
    <Button className="my-0.5" aria-expanded={open} onClick={onClick}>
      Findings {faulty ? <span className="text-brick">faults</span> : <Counts findings={findings} />}
    </Button>
  );
}
