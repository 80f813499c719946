// Typing over a number in a drawing: a field laid over its label. Enter keeps, Escape drops, text that is no number stays.
import { useEffect, useRef, useState } from "react";
import type { Quantity } from "../design/types";
import { numberWanted } from "./numbers";
import { useUnits } from "./units";

export interface TypeOverRequest {
  /** Where the label stands, in pixels of the window. */
  box: { left: number; top: number };
  label: string;
  quantity: Quantity;
  value: number;
  /** What was typed to open it, in place of the value. */
  first?: string;
  commit: (value: number) => void;
}

const WIDTH_PX = 84;

export function TypeOver({ request, close }: { request: TypeOverRequest; close: () => void }) {
  const units = useUnits();
  const [text, setText] = useState(request.first ?? units.entry(request.value, request.quantity));
  const [wrong, setWrong] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  const opener = useRef(document.activeElement);
  // leaving moves the focus, and that is a blur too: only the first way out counts
  const done = useRef(false);
  useEffect(() => {
    field.current!.focus();
    if (request.first === undefined) field.current!.select();
  }, [request]);

  const leave = (value: number | null) => {
    if (done.current) return;
    done.current = true;
    if (value !== null && value !== request.value) request.commit(value);
    close();
  };
  const back = () => {
    if (opener.current instanceof HTMLElement || opener.current instanceof SVGElement) opener.current.focus();
  };
  const commit = () => {
    const value = units.parse(text, request.quantity);
    if (value === null) {
      setWrong(true);
      return;
    }
    leave(value);
    back();
  };
  const unit = units.unit(request.quantity);
  const left = Math.max(4, Math.min(request.box.left, window.innerWidth - WIDTH_PX - 60));
  return (
    <div className="fixed z-20 rounded border border-petrol bg-sheet p-0.5 shadow-lg" style={{ left, top: request.box.top }}>
      <span className="flex items-center gap-1">
        <input
          ref={field}
          className="cell text-right"
          style={{ width: WIDTH_PX }}
          aria-label={`${request.label}, ${unit}`}
          aria-invalid={wrong}
          data-type-over
          inputMode="decimal"
          value={text}
          onChange={(event) => {
            setText(event.target.value);
            setWrong(false);
          }}
          onBlur={() => {
            if (!wrong) leave(units.parse(text, request.quantity));
          }}
          onKeyDown={(event) => {
            event.stopPropagation();
            if (event.key === "Enter") commit();
            if (event.key === "Escape") {
              leave(null);
              back();
            }
          }}
        />
        <span className="pr-1 text-[12px] text-mute">{unit}</span>
      </span>
      {wrong && (
        <span role="alert" className="block px-1 text-xs text-brick">
          &quot;{text}&quot;: enter {numberWanted(unit)}
        </span>
      )}
    </div>
  );
}
