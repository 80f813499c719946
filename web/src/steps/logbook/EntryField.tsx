// One field of an entry, by what it holds: a number in the person's units, a choice, yes or no, a string, words, or a pasted block.
import { useReference } from "../../design/reference";
import { useSnapshot } from "../../design/context";
import type { NewEntry } from "../../design/types";
import { Choice, NumberField, TextField } from "../../ui/Field";
import { useUnits } from "../../ui/units";
import { Block } from "./Block";
import { BLOCKS, at } from "./fields";
import { useSizes } from "./useLog";

interface EntryFieldProps {
  name: keyof NewEntry;
  value: unknown;
  needed: boolean;
  /** In a table: its column says the unit. */
  bare?: boolean;
  onChange: (value: unknown) => void;
}

const YES_NO = [
  { value: "", text: "not recorded" },
  { value: "yes", text: "yes" },
  { value: "no", text: "no" },
] as const;

export function EntryField({ name, value, needed, bare = false, onChange }: EntryFieldProps) {
  const field = useReference().at(at(name));
  const units = useUnits();
  const label = `${field.title}${needed ? ", must be there" : ""}`;
  const block = BLOCKS[name];
  if (block !== undefined)
    return <Block target={block} title={field.title} rows={(value as Record<string, number>[]) ?? []} onChange={onChange} />;
  if (name === "string") return <StringChoice label={label} value={String(value ?? "")} onChange={onChange} />;
  if (field.kind === "number")
    return (
      <span className="flex items-center gap-1.5">
        <span className={bare ? "w-full" : "w-28"}>
          <NumberField
            label={label}
            place={`entry/${name}`}
            quantity={field.quantity ?? "factor"}
            value={(value as number | null | undefined) ?? null}
            optional
            onCommit={onChange}
          />
        </span>
        {!bare && <span className="text-mute">{field.quantity ? units.unit(field.quantity) : ""}</span>}
      </span>
    );
  if (field.kind === "flag")
    return (
      <Choice
        label={label}
        place={`entry/${name}`}
        value={value === true ? "yes" : value === false ? "no" : ""}
        options={YES_NO}
        onCommit={(chosen) => {
          onChange(chosen === "" ? null : chosen === "yes");
        }}
      />
    );
  if (field.kind === "choice")
    return (
      <Choice
        label={label}
        place={`entry/${name}`}
        value={String(value ?? "")}
        options={[{ value: "", text: "not recorded" }, ...field.options.map((o) => ({ value: o, text: o }))]}
        onCommit={(chosen) => {
          onChange(chosen === "" ? null : chosen);
        }}
      />
    );
  return <TextField label={label} place={`entry/${name}`} value={String(value ?? "")} onCommit={onChange} />;
}

function StringChoice({ label, value, onChange }: { label: string; value: string; onChange: (value: string) => void }) {
  const strings = useSnapshot("document").strings;
  const size = useSizes();
  return (
    <Choice
      label={label}
      place="entry/string"
      value={value}
      options={[{ value: "", text: "–" }, ...strings.map((s) => ({ value: s.id, text: `${size(s.id)} ${s.role}` }))]}
      onCommit={onChange}
    />
  );
}
