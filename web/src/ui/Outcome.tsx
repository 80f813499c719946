// A number that follows, with its unit; it opens into its working where it has one.
import type { ReactNode } from "react";
import type { Quantity } from "../design/types";
import { Headline } from "./Headline";
import { Term } from "./Term";
import { useUnits } from "./units";

export interface OutcomeProps {
  label: string;
  value: number | null | undefined;
  quantity: Quantity;
  working?: string;
  /** What it says beside the number, or in its place. */
  note?: ReactNode;
  bad?: boolean;
}

export function Outcome({ label, value, quantity, working, note, bad = false }: OutcomeProps) {
  const units = useUnits();
  const text = <span className={bad ? "font-semibold text-brick" : ""}>{units.text(value, quantity)}</span>;
  return (
    <div className="grid grid-cols-[1fr_auto] items-baseline gap-x-2 border-b border-rule/60 py-0.5 text-[12.5px]">
      <span className="leading-tight">
        <Term>{label}</Term>
      </span>
      <span className="text-right">
        {working !== undefined && value !== null && value !== undefined ? (
          <Headline working={working} title={label.toLowerCase()}>
            {text}
          </Headline>
        ) : (
          text
        )}
        {note !== undefined && <span className="ml-1 text-mute">{note}</span>}
      </span>
    </div>
  );
}
