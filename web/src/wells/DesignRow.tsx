// One design in the list of wells.
import { Copy } from "lucide-react";
import { Link } from "react-router";
import { useReference } from "../design/reference";
import type { Summary } from "../design/types";
import { STATE_WORDS, StateMark } from "../ui/mark";
import { DeleteWell } from "./DeleteWell";
import { MiniSection } from "./MiniSection";
import type { Listed } from "./order";

export const ROW_PX = 44;

interface DesignRowProps {
  row: Listed;
  index: number;
  /** Room of the rows before it that are not drawn. */
  gapPx: number;
  inHand: boolean;
  onFocus: () => void;
  onDelete: (wellId: number) => void;
  onCopy: (wellId: number) => void;
}

export function DesignRow({ row: { design, first }, index, gapPx, inHand, onFocus, onDelete, onCopy }: DesignRowProps) {
  const name = design.well_name || "unnamed well";
  const summary = design.summary ?? undefined;
  return (
    <>
      {gapPx > 0 && (
        <tr aria-hidden>
          <td style={{ height: gapPx }} />
        </tr>
      )}
      <tr
        data-design-row={index}
        aria-rowindex={index + 2}
        style={{ height: ROW_PX }}
        className={`hover:bg-petrol/8 ${first ? "border-t border-rule/60" : ""}`}
        onFocus={onFocus}
      >
        <td className="pl-2">{summary && <MiniSection summary={summary} />}</td>
        <td className="max-w-72 truncate px-2">
          <Link
            to={`/designs/${design.id}/depths`}
            className={first ? "text-[14px] font-semibold hover:text-petrol" : "text-[12.5px] text-mute hover:text-petrol"}
            title={name}
            tabIndex={inHand ? 0 : -1}
          >
            {name}
            <span className="sr-only">, {design.name}</span>
          </Link>
        </td>
        <td className="max-w-48 truncate px-2" title={design.name}>
          {design.name}
        </td>
        <td className="px-2">
          <Steps summary={summary} />
        </td>
        <td className="px-2 text-[12.5px]">
          <Open summary={summary} />
        </td>
        <td className="px-2 text-[12.5px] whitespace-nowrap text-mute">
          {new Date(design.saved_at).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" })}
          <span className="block text-[11.5px]">
            revision {design.revision}, by {design.author}
          </span>
        </td>
        <td className="pr-2 text-right whitespace-nowrap">
          {first && (
            <span className="flex items-center justify-end">
              <button
                type="button"
                className="text-mute hover:text-petrol"
                aria-label={`Copy ${name}`}
                title="Copy the well with its designs"
                onClick={() => {
                  onCopy(design.well_id);
                }}
              >
                <Copy size={14} className="inline" aria-hidden />
              </button>
              <DeleteWell design={design} onDelete={onDelete} />
            </span>
          )}
        </td>
      </tr>
    </>
  );
}

function Steps({ summary }: { summary: Summary | undefined }) {
  const reference = useReference();
  if (summary === undefined) return <span className="text-mute">…</span>;
  return (
    <span className="flex gap-1">
      {summary.path.map(({ step, state }) => (
        <span key={step} title={`${reference.title(step)}: ${STATE_WORDS[state]}`}>
          <StateMark state={state} />
          <span className="sr-only">
            {reference.title(step)} {STATE_WORDS[state]}
          </span>
        </span>
      ))}
    </span>
  );
}

function Open({ summary }: { summary: Summary | undefined }) {
  if (summary === undefined) return <span className="text-mute">…</span>;
  if (summary.unreadable !== "") return <span className="text-brick">cannot be read: {summary.unreadable}</span>;
  const { stops, cautions, unknowns } = summary;
  const plural = (n: number, word: string) => `${n} ${word}${n === 1 ? "" : "s"}`;
  const parts = [
    ...(stops ? [<span className="font-semibold text-brick">{plural(stops, "stop")}</span>] : []),
    ...(cautions ? [<span className="text-gold-text">{plural(cautions, "caution")}</span>] : []),
    ...(unknowns ? [<span className="text-mute">{unknowns} unknown</span>] : []),
  ];
  if (parts.length === 0) return <span className="text-mute">none</span>;
  return (
    <>
      {parts.map((part, i) => (
        <span key={i}>
          {i > 0 && " · "}
          {part}
        </span>
      ))}
    </>
  );
}
