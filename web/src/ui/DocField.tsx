// Fields bound to a place of the document. Editing a proposed string adopts the proposal first.
import { adoption, useAt, useBench, useDocument, useFact } from "../design/context";
import type { Design } from "../design/types";
import { useReference } from "../design/reference";
import { Hint } from "./Term";
import { useUnits } from "./units";
import { FactValue } from "./FactValue";
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
  /** What it is called to a screen reader; the field's own title where nothing else is said. */
  label?: string;
  path: string;
  /** What holds while nothing is decided. */
  proposed?: number | null;
  align?: "left" | "right";
}

/** A number of the basis that nobody has given: shown as what is proposed, until it is typed. */
function isAssumed(document: Design, path: string): boolean {
  const last = document.trajectory.stations.length - 1;
  return document.site.assumed.some((name) => path === (name === "total_depth" ? `/trajectory/stations/${last}/md_ft` : `/site/${name}`));
}

export function DocNumber({ label, path, proposed, align }: DocNumberProps) {
  const edit = useEdit(path);
  const field = useReference().at(path);
  const held = useAt(path) as number | null | undefined;
  const assumed = useDocument((d) => isAssumed(d, path));
  const fact = useFact(path);
  if (fact !== undefined) return <FactValue fact={fact} field={field} label={label ?? field.title} />;
  return (
    <NumberField
      label={label ?? field.title}
      place={path}
      quantity={field.quantity ?? "factor"}
      help={field.help}
      value={assumed ? null : field.optional ? held : (held ?? proposed)}
      optional={field.optional || assumed}
      proposed={assumed ? held : proposed}
      align={align}
      onCommit={(value) => {
        if (value !== null || field.optional) edit(value);
      }}
    />
  );
}

interface DocProps {
  label?: string;
  path: string;
}

export function DocText({ label, path }: DocProps) {
  const edit = useEdit(path);
  const field = useReference().at(path);
  const fact = useFact(path);
  const held = useAt(path);
  if (fact !== undefined) return <FactValue fact={fact} field={field} label={label ?? field.title} />;
  return <TextField label={label ?? field.title} place={path} value={String(held ?? "")} onCommit={edit} />;
}

export function DocCheck({ label, path, fallback = false }: DocProps & { fallback?: boolean }) {
  const edit = useEdit(path);
  const field = useReference().at(path);
  const held = useAt(path) as boolean | undefined;
  return <Check label={label ?? field.title} place={path} checked={held ?? fallback} onCommit={edit} />;
}

export function DocChoice({ label, path, fallback }: DocProps & { fallback?: string }) {
  const edit = useEdit(path);
  const field = useReference().at(path);
  const held = String((useAt(path) as string | number | undefined) ?? fallback ?? "");
  const commit = (value: string) => {
    edit(field.whole ? Number(value) : value);
  };
  return (
    <Choice
      label={label ?? field.title}
      place={path}
      value={held}
      options={field.options.map((o) => ({ value: o, text: o }))}
      onCommit={commit}
    />
  );
}

/** The unit in which the field at a place is shown; nothing for a pure number. */
export function UnitOf({ path }: { path: string }) {
  const units = useUnits();
  const { quantity } = useReference().at(path);
  return <>{quantity ? units.unit(quantity) : ""}</>;
}

/** The title of a field; what it means opens over it. The field itself tells its help to a screen reader. */
export function FieldLabel({ path }: { path: string }) {
  const { title, help, meaning } = useReference().at(path);
  return (
    <Hint text={title} hint={[help === "" ? "" : `${title}: ${help}.`, meaning === "" ? "" : `${meaning}.`].filter(Boolean).join(" ")} />
  );
}

/** One field in a form: its title, what stands there, and its unit. */
export function FieldRow({ path, proposed }: { path: string; proposed?: number | null }) {
  const field = useReference().at(path);
  return (
    <div
      className={`grid items-center border-b border-rule/60 py-px ${field.kind === "choice" ? "grid-cols-[1fr_10rem]" : "grid-cols-[1fr_5.5rem_3rem]"}`}
    >
      <span className="leading-tight">
        <FieldLabel path={path} />
      </span>
      {field.kind === "flag" ? (
        <span className="text-right">
          <DocCheck path={path} />
        </span>
      ) : field.kind === "choice" ? (
        <DocChoice path={path} />
      ) : (
        <DocNumber path={path} proposed={proposed} />
      )}
      {field.kind !== "choice" && (
        <span className="pl-1.5 text-mute">
          <UnitOf path={path} />
        </span>
      )}
    </div>
  );
}
