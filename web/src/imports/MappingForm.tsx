// Which column of a file is which, in what unit, and its first rows; for profiles what the depths are and how far to thin.
import type { Mapping, Preview } from "../design/types";

interface MappingFormProps {
  preview: Preview;
  mapping: Mapping;
  onChange: (mapping: Mapping) => void;
  profile: boolean;
}

const FIELD = "rounded border border-rule bg-sheet px-1 py-0.5";

export function MappingForm({ preview, mapping, onChange, profile }: MappingFormProps) {
  const mapped = (key: string) => mapping.columns.find((m) => m.key === key);
  const setColumn = (key: string, source: number | null, unit: string) => {
    const others = mapping.columns.filter((m) => m.key !== key);
    onChange({ ...mapping, columns: source === null ? others : [...others, { key, source, unit }] });
  };
  return (
    <>
      <p className="mt-2 text-mute">
        {preview.kind}, {preview.count.toLocaleString("en-US")} rows. {preview.notes.join("; ")}
      </p>
      <table className="mt-2 w-full text-[12.5px]" aria-label="Columns of the file">
        <thead>
          <tr className="text-left text-[11.5px] text-mute">
            <th className="font-normal">Here</th>
            <th className="font-normal">In the file</th>
            <th className="font-normal">Unit there</th>
          </tr>
        </thead>
        <tbody>
          {preview.offered.map(({ column, units }) => (
            <tr key={column.key}>
              <td className="py-0.5">
                {column.title}
                {!column.required && <span className="text-mute"> (may be left out)</span>}
              </td>
              <td>
                <select
                  className={FIELD}
                  aria-label={`Column for ${column.title}`}
                  value={mapped(column.key)?.source ?? ""}
                  onChange={(event) => {
                    setColumn(column.key, event.target.value === "" ? null : Number(event.target.value), mapped(column.key)?.unit ?? "");
                  }}
                >
                  <option value="">none</option>
                  {preview.header.map((name, i) => (
                    <option key={i} value={i}>
                      {name}
                    </option>
                  ))}
                </select>
              </td>
              <td>
                {units.length > 0 && (
                  <select
                    className={FIELD}
                    aria-label={`Unit of ${column.title}`}
                    value={mapped(column.key)?.unit ?? ""}
                    disabled={!mapped(column.key)}
                    onChange={(event) => {
                      setColumn(column.key, mapped(column.key)!.source, event.target.value);
                    }}
                  >
                    <option value="">as shown in the table</option>
                    {[...new Set([...units, ...(mapped(column.key)?.unit ? [mapped(column.key)!.unit] : [])])].map((unit) => (
                      <option key={unit}>{unit}</option>
                    ))}
                  </select>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {profile && <ProfileOptions mapping={mapping} onChange={onChange} />}
      <Sample preview={preview} />
    </>
  );
}

function ProfileOptions({ mapping, onChange }: { mapping: Mapping; onChange: (mapping: Mapping) => void }) {
  return (
    <p className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1">
      <label>
        Depths are{" "}
        <select
          className={FIELD}
          value={mapping.depth_is}
          onChange={(event) => {
            onChange({ ...mapping, depth_is: event.target.value as Mapping["depth_is"] });
          }}
        >
          <option value="tvd">true vertical</option>
          <option value="md">measured along the well</option>
        </select>
      </label>
      <label>
        Thin to its shape, off by at most{" "}
        <select
          className={FIELD}
          value={mapping.tolerance_ppg ?? ""}
          onChange={(event) => {
            onChange({ ...mapping, tolerance_ppg: event.target.value === "" ? null : Number(event.target.value) });
          }}
        >
          <option value="">keep every point</option>
          {[0.01, 0.02, 0.05, 0.1, 0.2].map((ppg) => (
            <option key={ppg} value={ppg}>
              {ppg} ppg
            </option>
          ))}
        </select>
      </label>
    </p>
  );
}

function Sample({ preview }: { preview: Preview }) {
  return (
    <div className="mt-3 overflow-x-auto" tabIndex={0} role="region" aria-label="First rows of the file">
      <table className="border-collapse text-[12px]">
        <thead>
          <tr>
            {preview.header.map((name, i) => (
              <th key={i} className="border-b border-rule px-2 text-right font-normal text-mute">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {preview.sample.map((row, i) => (
            <tr key={i} className="border-b border-rule/60">
              {row.map((cell, k) => (
                <td key={k} className="px-2 text-right">
                  {cell || "–"}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {preview.count > preview.sample.length && (
        <p className="text-[12px] text-mute">and {(preview.count - preview.sample.length).toLocaleString("en-US")} more</p>
      )}
    </div>
  );
}
