// Fields bound to a place of the document. Editing a proposed string adopts the proposal first.
import { adoption, useAt, useBench } from "../design/context";
import type { Quantity } from "../design/types";
import { Check, Choice, NumberField, TextField } from "./Field";

function useEdit(path: string): (value: unknown) => void {
  const { session } = useBench();
  return (value) => {
    const { document, evaluation } = session.snapshot();
    const adopted = path.startsWith("/strings/") ? adoption(document, evaluation) : [];
    session.edit([...adopted, { path, value }]);
  };
}

interface DocNumberProps {
  label: string;
  path: string;
  quantity: Quantity;
  optional?: boolean;
  proposed?: number | null;
  align?: "left" | "right";
}

export function DocNumber({ label, path, quantity, optional, proposed, align }: DocNumberProps) {
  const edit = useEdit(path);
  const held = useAt(path) as number | null | undefined;
  const value = optional ? held : (held ?? proposed);
  return (
    <NumberField
      label={label}
      place={path}
      quantity={quantity}
      value={value}
      optional={optional}
      proposed={proposed}
      align={align}
      onCommit={edit}
    />
  );
}

export function DocText({ label, path }: { label: string; path: string }) {
  const edit = useEdit(path);
  return <TextField label={label} place={path} value={String(useAt(path) ?? "")} onCommit={edit} />;
}

export function DocCheck({ label, path, fallback = false }: { label: string; path: string; fallback?: boolean }) {
  const edit = useEdit(path);
  const held = useAt(path) as boolean | undefined;
  return <Check label={label} place={path} checked={held ?? fallback} onCommit={edit} />;
}

interface DocChoiceProps {
  label: string;
  path: string;
  options: readonly string[];
  fallback?: string;
  /** The options are numbers in the document. */
  numeric?: boolean;
}

export function DocChoice({ label, path, options, fallback, numeric }: DocChoiceProps) {
  const edit = useEdit(path);
  const held = String((useAt(path) as string | number | undefined) ?? fallback ?? "");
  const commit = (value: string) => {
    edit(numeric ? Number(value) : value);
  };
  return <Choice label={label} place={path} value={held} options={options.map((o) => ({ value: o, text: o }))} onCommit={commit} />;
}
