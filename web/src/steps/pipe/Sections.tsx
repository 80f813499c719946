// The sections of a string: pipe, grade, connection and end of each; what is proposed is in italics until it is decided.
import { useQuery } from "@tanstack/react-query";
import { Plus, Trash2 } from "lucide-react";
import { getCatalogue } from "../../design/api";
import { adoption, useBench, useSnapshot } from "../../design/context";
import type { DesignString, SectionResult } from "../../design/types";
import { Button } from "../../ui/Button";
import { Choice, NumberField } from "../../ui/Field";
import { Grid } from "../../ui/grid/Grid";
import type { ColumnSpec } from "../../ui/grid/columns";
import { useUnits } from "../../ui/units";

type Decided = NonNullable<DesignString["sections"]>[number];
const COLUMNS: readonly ColumnSpec[] = ["weight_ppf", "grade", { key: "connection", label: "Conn." }, "to_md_ft"];

interface Piece {
  weight_ppf: number;
  grade: string;
  connection: string;
}

/** The sections in force as they would be decided: all but the last with their end. */
function asDecided(sections: readonly SectionResult[]): Decided[] {
  return sections.map((s, i) => ({
    weight_ppf: s.weight_ppf,
    grade: s.grade,
    connection: s.connection,
    to_md_ft: i < sections.length - 1 ? s.bottom_md_ft : null,
  }));
}

export function Sections({ index, size }: { index: number; size: string }) {
  const { session } = useBench();
  const evaluation = useSnapshot("evaluation")!;
  const units = useUnits();
  const row = evaluation.pipe.strings[index]!;
  const string = evaluation.strings[index]!;
  const write = (next: Decided[]) => {
    const { document, evaluation: now } = session.snapshot();
    const single = next.length === 1 ? { weight_ppf: next[0]!.weight_ppf, grade: next[0]!.grade, connection: next[0]!.connection } : null;
    session.edit([
      ...adoption(document, now),
      { path: `/strings/${index}/pipe`, value: single },
      { path: `/strings/${index}/sections`, value: single === null ? next : [] },
    ]);
  };
  const sections = asDecided(row.sections);
  const put = (place: number, change: Partial<Decided>) => {
    write(sections.map((s, i) => (i === place ? { ...s, ...change } : s)));
  };
  const split = () => {
    const last = row.sections[row.sections.length - 1]!;
    const middle = Math.round((last.top_md_ft + last.bottom_md_ft) / 200) * 100;
    write([
      ...sections.slice(0, -1),
      { ...sections[sections.length - 1]!, to_md_ft: middle },
      { ...sections[sections.length - 1]!, to_md_ft: null },
    ]);
  };
  if (sections.length === 0)
    return (
      <Bare
        index={index}
        size={size}
        odIn={string.od_in}
        onChoose={(piece) => {
          write([{ ...piece, to_md_ft: null }]);
        }}
      />
    );
  return (
    <div>
      {row.sections.map((section, place) => (
        <div key={place} className="grid grid-cols-[4.4rem_4rem_5.2rem_3.6rem_1fr_1rem] items-center gap-x-1">
          <PieceChoice
            label={`${size} section ${place + 1}`}
            place={place === 0 && sections.length === 1 ? `/strings/${index}/pipe` : `/strings/${index}/sections/${place}`}
            odIn={string.od_in}
            piece={section}
            decided={row.chosen}
            onChange={(piece) => {
              put(place, piece);
            }}
          />
          {place < sections.length - 1 ? (
            <NumberField
              label={`${size} section ${place + 1} ends at`}
              place={`/strings/${index}/sections/${place}/to_md_ft`}
              quantity="depth"
              value={row.chosen ? section.bottom_md_ft : null}
              proposed={section.bottom_md_ft}
              onCommit={(value) => {
                put(place, { to_md_ft: value });
              }}
            />
          ) : (
            <span className="text-right text-mute">{units.number(section.bottom_md_ft, "depth")}</span>
          )}
          <span className="text-[12px] text-mute">{units.unit("depth")}</span>
          {sections.length > 1 ? (
            <button
              type="button"
              className="text-mute hover:text-brick"
              aria-label={`Remove section ${place + 1} of ${size}`}
              onClick={() => {
                const rest = sections.filter((_, i) => i !== place);
                write(rest.map((s, i) => ({ ...s, to_md_ft: i === rest.length - 1 ? null : s.to_md_ft })));
              }}
            >
              <Trash2 size={12} aria-hidden />
            </button>
          ) : (
            <span />
          )}
        </div>
      ))}
      {row.chosen && sections.length > 1 && (
        <details className="text-[12px]">
          <summary className="text-mute">As a table</summary>
          <Grid
            title={`Sections of ${size}`}
            target="sections"
            path={`/strings/${index}/sections`}
            columns={COLUMNS}
            sortBy="to_md_ft"
            newRow={(rows) => ({ ...rows[rows.length - 1], to_md_ft: null })}
            least={1}
            empty=""
          />
        </details>
      )}
      <p className="mt-0.5 flex flex-wrap gap-1.5">
        <Button onClick={split} title="Two sections in place of the last">
          <Plus size={12} aria-hidden /> Section
        </Button>
        {row.chosen && (
          <Button
            onClick={() => {
              session.edit([
                { path: `/strings/${index}/pipe`, value: null },
                { path: `/strings/${index}/sections`, value: [] },
              ]);
            }}
          >
            Leave it to the tool
          </Button>
        )}
      </p>
    </div>
  );
}

/** No pipe stands or none is known: one may still be chosen by hand. */
function Bare({ index, size, odIn, onChoose }: { index: number; size: string; odIn: number | null; onChoose: (piece: Piece) => void }) {
  return (
    <div className="grid grid-cols-[4.4rem_4rem_5.2rem_1fr] items-center gap-x-1">
      <PieceChoice
        label={`${size} section 1`}
        place={`/strings/${index}/pipe`}
        odIn={odIn}
        piece={null}
        decided={false}
        onChange={onChoose}
      />
      <span className="text-[12px] text-mute">none in force</span>
    </div>
  );
}

interface PieceChoiceProps {
  label: string;
  place: string;
  odIn: number | null;
  piece: Piece | null;
  decided: boolean;
  onChange: (piece: Piece) => void;
}

/** Weight, then the grades it comes in, then the connections of both; a choice keeps what still fits. */
function PieceChoice({ label, place, odIn, piece, decided, onChange }: PieceChoiceProps) {
  const units = useUnits();
  const own = useSnapshot("document").pipes ?? [];
  const { data: catalogue } = useQuery({ queryKey: ["catalogue"], queryFn: getCatalogue, staleTime: Infinity });
  const rows: readonly Piece[] = [...own.filter((p) => p.od_in === odIn), ...(catalogue?.pipes ?? []).filter((p) => p.od_in === odIn)];
  const now = piece ?? { weight_ppf: 0, grade: "", connection: "" };
  const with_ = (part: Partial<Piece>) => {
    const wanted = { ...now, ...part };
    const keys = Object.keys(part) as (keyof Piece)[];
    const fits = rows.filter((r) => keys.every((k) => r[k] === part[k]));
    const score = (r: Piece) =>
      (r.weight_ppf === wanted.weight_ppf ? 4 : 0) + (r.grade === wanted.grade ? 2 : 0) + (r.connection === wanted.connection ? 1 : 0);
    const best = [...fits].sort((a, b) => score(b) - score(a))[0];
    if (best) onChange({ weight_ppf: best.weight_ppf, grade: best.grade, connection: best.connection });
  };
  const distinct = <T,>(values: readonly T[]) => [...new Set(values)];
  const weights = distinct([...rows.map((r) => r.weight_ppf), ...(piece ? [piece.weight_ppf] : [])]).sort((a, b) => a - b);
  const grades = distinct([...rows.filter((r) => r.weight_ppf === now.weight_ppf).map((r) => r.grade), ...(piece ? [piece.grade] : [])]);
  const joints = distinct([
    ...rows.filter((r) => r.weight_ppf === now.weight_ppf && r.grade === now.grade).map((r) => r.connection),
    ...(piece ? [piece.connection] : []),
  ]);
  const none = piece === null ? [{ value: "", text: "–" }] : [];
  return (
    <>
      <Choice
        label={`${label} weight`}
        place={place}
        value={piece ? String(piece.weight_ppf) : ""}
        decided={decided}
        options={[...none, ...weights.map((w) => ({ value: String(w), text: units.number(w, "linear_weight") }))]}
        onCommit={(value) => {
          with_({ weight_ppf: Number(value) });
        }}
      />
      <Choice
        label={`${label} grade`}
        place={`${place}/grade`}
        value={now.grade}
        decided={decided}
        options={[...none, ...grades.map((g) => ({ value: g, text: g }))]}
        onCommit={(grade) => {
          with_({ weight_ppf: now.weight_ppf, grade });
        }}
      />
      <Choice
        label={`${label} connection`}
        place={`${place}/connection`}
        value={now.connection}
        decided={decided}
        options={[...none, ...joints.map((c) => ({ value: c, text: c }))]}
        onCommit={(connection) => {
          with_({ weight_ppf: now.weight_ppf, grade: now.grade, connection });
        }}
      />
    </>
  );
}
