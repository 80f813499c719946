// A number that can be typed over: shown in the person's units, committed on Enter or on leaving, Escape returns.
// Text that is no number stays in the field with a message; nothing changes until it is one.
import { useId, useState } from "react";
import { useFault } from "../design/context";
import type { Quantity } from "../design/types";
import { numberWanted } from "./numbers";
import { useUnits } from "./units";

interface NumberFieldProps {
  label: string;
  value: number | null | undefined;
  quantity: Quantity;
  place: string;
  onCommit: (value: number | null) => void;
  /** An empty field means "not decided": the placeholder shows what is then used. */
  optional?: boolean;
  /** What holds while nothing is decided. */
  proposed?: number | null;
  help?: string;
  align?: "left" | "right";
}

export function NumberField({
  label,
  value,
  quantity,
  place,
  onCommit,
  optional = false,
  proposed,
  help,
  align = "right",
}: NumberFieldProps) {
  const units = useUnits();
  const fault = useFault(place);
  const [text, setText] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const messageId = useId();
  const message = wrong ?? fault;

  // a new value from elsewhere (undo, a remedy, other units) replaces what was being typed
  const shown = `${value}|${units.key}`;
  const [seen, setSeen] = useState(shown);
  if (shown !== seen) {
    setSeen(shown);
    setText(null);
    setWrong(null);
  }

  const commit = () => {
    if (text === null) return;
    if (text.trim() === "" && optional) {
      setText(null);
      setWrong(null);
      if (value !== null && value !== undefined) onCommit(null);
      return;
    }
    const parsed = units.parse(text, quantity);
    if (parsed === null) {
      setWrong(`"${text}": enter ${numberWanted(units.unit(quantity))}`);
      return;
    }
    setWrong(null);
    setText(null);
    if (parsed !== value) onCommit(parsed);
  };

  return (
    <span className="block">
      {help !== "" && (
        <span id={`${messageId}-help`} hidden>
          {help}
        </span>
      )}
      <input
        className={`cell ${align === "right" ? "text-right" : ""}`}
        aria-label={`${label}${units.unit(quantity) ? `, ${units.unit(quantity)}` : ""}`}
        aria-invalid={message !== null}
        aria-describedby={message ? messageId : help === "" ? undefined : `${messageId}-help`}
        data-place={place}
        data-typing={text !== null}
        data-decided={!(optional && (value === null || value === undefined))}
        inputMode="decimal"
        value={text ?? units.entry(value, quantity)}
        placeholder={optional && proposed !== undefined && proposed !== null ? units.entry(proposed, quantity) : undefined}
        onChange={(event) => {
          setText(event.target.value);
        }}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === "Enter") commit();
          if (event.key === "Escape") {
            setText(null);
            setWrong(null);
            event.stopPropagation();
          }
        }}
      />
      {message && (
        <span id={messageId} role="alert" className="block px-1 text-left text-xs whitespace-normal text-brick">
          {message}
        </span>
      )}
    </span>
  );
}

interface TextFieldProps {
  label: string;
  value: string;
  place: string;
  onCommit: (value: string) => void;
}

export function TextField({ label, value, place, onCommit }: TextFieldProps) {
  const [text, setText] = useState<string | null>(null);
  const commit = () => {
    if (text !== null && text !== value) onCommit(text);
    setText(null);
  };
  return (
    <input
      className="cell"
      aria-label={label}
      data-place={place}
      value={text ?? value}
      onChange={(event) => {
        setText(event.target.value);
      }}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === "Enter") commit();
        if (event.key === "Escape") setText(null);
      }}
    />
  );
}

interface ChoiceProps<T extends string> {
  label: string;
  value: T;
  options: readonly { value: T; text: string }[];
  place: string;
  onCommit: (value: T) => void;
  decided?: boolean;
}

export function Choice<T extends string>({ label, value, options, place, onCommit, decided = true }: ChoiceProps<T>) {
  return (
    <select
      className="cell bg-sheet"
      aria-label={label}
      data-place={place}
      data-decided={decided}
      value={value}
      onChange={(event) => {
        onCommit(event.target.value as T);
      }}
    >
      {options.map((option) => (
        <option key={option.value} value={option.value} className="bg-sheet text-ink not-italic">
          {option.text}
        </option>
      ))}
    </select>
  );
}

interface CheckProps {
  label: string;
  checked: boolean;
  place: string;
  onCommit: (checked: boolean) => void;
}

export function Check({ label, checked, place, onCommit }: CheckProps) {
  return (
    <input
      type="checkbox"
      className="size-3.5 accent-petrol"
      aria-label={label}
      data-place={place}
      checked={checked}
      onChange={(event) => {
        onCommit(event.target.checked);
      }}
    />
  );
}
