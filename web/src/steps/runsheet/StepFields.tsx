// What can be done to a step: go to its number, move it, cross it out, give it a time, a note.
import { ArrowDown, ArrowUp, Calculator, CornerUpRight, RectangleHorizontal, Trash2, X } from "lucide-react";
import { useLine } from "../../design/address";
import { useBench, useDocument } from "../../design/context";
import type { LineRow } from "../../design/types";
import { Button } from "../../ui/Button";
import { NumberField, TextField } from "../../ui/Field";
import { editOf, editStep } from "./edits";

interface Props {
  line: LineRow;
  text: string;
  onMove: (by: 1 | -1) => void;
  onCross: () => void;
}

export function StepFields({ line, text, onMove, onCross }: Props) {
  const { session, ask, goTo } = useBench();
  const edit = useDocument((d) => editOf(d.runsheet, line.key));
  const [, take] = useLine();
  const own = line.own !== "";
  const patch = (change: Parameters<typeof editStep>[2]) => {
    session.edit(editStep(session.snapshot().document, line.key, change));
  };
  const at = useDocument((d) => d.runsheet.edits?.findIndex((e) => e.step === line.key) ?? -1);
  return (
    <>
      <div className="mt-1 flex flex-wrap items-center gap-1.5">
        {line.working !== null && (
          <Button
            data-working={line.working}
            onClick={() => {
              ask(line.working!, text);
            }}
          >
            <Calculator size={13} aria-hidden /> Working
          </Button>
        )}
        {!own && line.place !== "" && (
          <Button
            onClick={() => {
              goTo(line.step, line.place);
            }}
          >
            <CornerUpRight size={13} aria-hidden /> Where it is decided
          </Button>
        )}
        {!line.crossed && (
          <Button
            onClick={() => {
              take(line.key, "floor");
            }}
          >
            <RectangleHorizontal size={13} aria-hidden /> At the rig floor
          </Button>
        )}
        <Button aria-label="Move up" title="Alt+↑" onClick={() => onMove(-1)}>
          <ArrowUp size={13} aria-hidden />
        </Button>
        <Button aria-label="Move down" title="Alt+↓" onClick={() => onMove(1)}>
          <ArrowDown size={13} aria-hidden />
        </Button>
        {line.moved && !own && (
          <Button
            onClick={() => {
              patch({ after: null });
            }}
          >
            Stand by rule
          </Button>
        )}
        <Button onClick={onCross} title="Delete">
          {own ? <Trash2 size={13} aria-hidden /> : <X size={13} aria-hidden />}
          {own ? "Remove" : line.crossed ? "Take in again" : "Cross out"}
        </Button>
      </div>
      <div className="bordered mt-1 flex max-w-2xl flex-wrap items-center gap-x-2 gap-y-1">
        {!own && (
          <>
            <span className="text-mute">Rig time, h</span>
            <span className="w-16">
              <NumberField
                label="Rig time"
                place={at < 0 ? "" : `/runsheet/edits/${at}/hours`}
                quantity="hours"
                help=""
                value={edit?.hours ?? null}
                optional
                proposed={line.given ? null : line.hours}
                onCommit={(hours) => {
                  patch({ hours });
                }}
              />
            </span>
          </>
        )}
        <span className="text-mute">Note</span>
        <span className="min-w-40 flex-1">
          <TextField
            label="Note"
            place={at < 0 ? "" : `/runsheet/edits/${at}/note`}
            value={edit?.note ?? ""}
            onCommit={(note) => {
              patch({ note });
            }}
          />
        </span>
      </div>
    </>
  );
}
