// The table behind a chart: what it draws, in numbers, for whoever cannot or would rather not read it off; and the chart as a file.
import { Copy, Table2 } from "lucide-react";
import { useRef, useState } from "react";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import { frameOf } from "../ui/picture";
import { SavePicture } from "../ui/SavePicture";

export interface TableData {
  columns: readonly string[];
  rows: readonly (readonly string[])[];
  /** Words rather than numbers after the first column. */
  words?: boolean;
}

/** A small button in the corner of a chart that opens its table. */
export function ChartTable({ title, data, className = "" }: { title: string; data: () => TableData; className?: string }) {
  const [open, setOpen] = useState(false);
  const button = useRef<HTMLButtonElement>(null);
  return (
    <>
      <button
        ref={button}
        type="button"
        className={`no-print text-mute hover:text-petrol ${className}`}
        aria-label={`${title} as a table`}
        title={`${title} as a table, or as a picture to keep`}
        onClick={() => {
          setOpen(true);
        }}
      >
        <Table2 size={13} aria-hidden />
      </button>
      {open && (
        <Modal open onOpenChange={setOpen} title={title} width="min-w-[24rem] max-w-[60rem]">
          <Rows data={data()} title={title} frame={() => (button.current === null ? null : frameOf(button.current))} />
        </Modal>
      )}
    </>
  );
}

function Rows({ data, title, frame }: { data: TableData; title: string; frame: () => HTMLElement | null }) {
  const side = data.words ? "text-left" : "text-right first:text-left";
  const copy = () => {
    const text = [data.columns, ...data.rows].map((row) => row.join("\t")).join("\n");
    void navigator.clipboard.writeText(text);
  };
  return (
    <>
      <div className="min-h-0 overflow-auto" tabIndex={0} role="region" aria-label={`Rows of ${title}`}>
        <table className="w-full border-collapse text-[12.5px]">
          <thead className="sticky top-0 bg-sheet">
            <tr>
              {data.columns.map((column) => (
                <th key={column} className={`border-b border-rule px-2 py-0.5 font-normal text-mute ${side}`}>
                  {column}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {data.rows.map((row, i) => (
              <tr key={i} className="border-b border-rule/60">
                {row.map((cell, k) => (
                  <td key={k} className={`px-2 align-top ${side}`}>
                    {cell}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
        {data.rows.length === 0 && <p className="py-2 text-mute">Nothing is drawn yet.</p>}
      </div>
      <p className="mt-2 flex shrink-0 items-center">
        <Button onClick={copy}>
          <Copy size={13} aria-hidden /> Copy
        </Button>
        <span className="ml-3 text-[12px] text-mute">
          The picture: <SavePicture title={title} frame={frame} />
        </span>
      </p>
    </>
  );
}
