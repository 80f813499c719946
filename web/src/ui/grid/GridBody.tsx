// The rows of an editable table: of a long one only those in view, with room for the others between them.
import type { RefObject } from "react";
import { Fragment, useLayoutEffect, useMemo, useRef } from "react";
import { useSnapshot } from "../../design/context";
import type { Reference } from "../../design/reference";
import { useReference } from "../../design/reference";
import type { Fault } from "../../design/types";
import { useUnits } from "../units";
import type { GridColumn, Row, Told } from "./columns";
import { GridRow } from "./GridRow";
import type { GridState } from "./useGrid";
import { useVisibleRows } from "./useVisibleRows";

interface GridBodyProps {
  table: RefObject<HTMLTableElement | null>;
  title: string;
  path: string;
  rows: readonly Row[];
  columns: readonly GridColumn[];
  told: readonly Told[];
  grid: GridState;
  second: boolean;
}

export function GridBody({ table, title, path, rows, columns, told, grid, second }: GridBodyProps) {
  const faults = useSnapshot("faults");
  const units = useUnits();
  const reference = useReference();
  const { cursor, span } = grid;
  const handlers = useStable(grid);
  const { visible, afterPx, measure } = useVisibleRows(table, rows.length, cursor.row);
  return (
    <>
      {visible.map(({ index, gapPx }) => (
        <Fragment key={index}>
          {gapPx > 0 && <Room px={gapPx} />}
          <tbody ref={measure} data-index={index}>
            <GridRow
              row={rows[index]!}
              index={index}
              columns={columns}
              told={told.map((t) => `${t.left ? "l" : "r"}${t.cell(index)}`).join("\t")}
              units={units}
              title={title}
              place={path}
              cursor={index === cursor.row ? cursor.column : null}
              selectedFrom={index >= span.from.row && index <= span.to.row ? span.from.column : null}
              selectedTo={index >= span.from.row && index <= span.to.row ? span.to.column : null}
              editing={index === cursor.row ? grid.editing : null}
              refused={grid.refused?.row === index ? grid.refused : null}
              faults={faultsOf(faults, `${path}/${index}`, reference, second ? columns : null)}
              {...handlers}
            />
          </tbody>
        </Fragment>
      ))}
      {afterPx > 0 && <Room px={afterPx} />}
    </>
  );
}

/** Room of rows that are not drawn. */
function Room({ px }: { px: number }) {
  return (
    <tbody aria-hidden>
      <tr>
        <td style={{ height: px }} />
      </tr>
    </tbody>
  );
}

/** What a row calls: the same functions all the time, working on the state of the moment, so that rows stay as drawn. */
function useStable(grid: GridState) {
  const held = useRef(grid);
  useLayoutEffect(() => {
    held.current = grid;
  });
  return useMemo(
    () => ({
      onEdit: (text: string) => {
        held.current.edit(text);
      },
      onSet: (value: unknown) => {
        held.current.set(value);
      },
      onCommit: (text: string, dRow: number, dColumn: number) => {
        held.current.commit(text, dRow, dColumn);
      },
      onCancel: () => {
        held.current.cancel();
      },
    }),
    [],
  );
}

/** Faults of one row as text, so that an unchanged row is not drawn again. */
function faultsOf(faults: readonly Fault[], place: string, reference: Reference, only: readonly GridColumn[] | null): string {
  return faults
    .filter((f) => f.path.startsWith(`${place}/`))
    .filter((f) => only === null || only.some((column) => f.path === `${place}/${column.key}`))
    .map((f) => {
      const key = f.path.slice(place.length + 1);
      return `${key}\t${reference.find(`${place}/${key}`)?.title ?? key}: ${f.value}; expected ${f.expected}`;
    })
    .join("\n");
}
