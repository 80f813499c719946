// Rows of an entry pasted as a block from a spreadsheet: the points of a test, the joints of a tally.
import { useState } from "react";
import { readPaste, readTestPoints, saidOf } from "../../design/api";
import { useBench } from "../../design/context";
import { useReference } from "../../design/reference";
import { Button } from "../../ui/Button";
import { useUnits } from "../../ui/units";

interface BlockProps {
  target: "leak_off_points" | "joints";
  title: string;
  rows: readonly Record<string, unknown>[];
  onChange: (rows: Record<string, unknown>[]) => void;
}

const TABLES = { leak_off_points: "/log/0/points", joints: "/strings/0/running/joints" } as const;
const FIRST = { leak_off_points: "volume_bbl", joints: "length_ft" } as const;
const WANTED = {
  leak_off_points: "Paste two columns: volume pumped, pump pressure",
  joints: "Paste the joints from the shoe up: measured length, section, kind",
} as const;

export function Block({ target, title, rows, onChange }: BlockProps) {
  const units = useUnits();
  const reference = useReference();
  const [text, setText] = useState("");
  const [said, setSaid] = useState("");
  const read = (block: string) => {
    setText(block);
    if (block.trim() === "") {
      onChange([]);
      setSaid("");
      return;
    }
    readPaste(target, block, FIRST[target], units.choice).then(
      ({ rows: found, unclear }) => {
        setSaid(unclear.length > 0 ? `Not understood: ${unclear.join(", ")}. ${WANTED[target]}.` : "");
        onChange(unclear.length > 0 ? [] : found);
      },
      (error: unknown) => {
        setSaid(saidOf(error, (path) => reference.tableWords(path, TABLES[target])));
        onChange([]);
      },
    );
  };
  return (
    <span className="block py-0.5">
      <textarea
        className="field h-20 w-full font-mono text-[12px]"
        aria-label={title}
        placeholder={WANTED[target]}
        value={text}
        onChange={(event) => {
          read(event.target.value);
        }}
      />
      {target === "leak_off_points" && <FromFeed onRead={onChange} onSaid={setSaid} />}
      <span role="status" className={`block text-[12px] ${said === "" ? "text-mute" : "text-brick"}`}>
        {said === "" ? `${rows.length} rows` : said}
      </span>
    </span>
  );
}

/** The points as the feed brought them, between two times of the rig's clock. */
function FromFeed({ onRead, onSaid }: { onRead: (rows: Record<string, unknown>[]) => void; onSaid: (said: string) => void }) {
  const { session } = useBench();
  const [begins, setBegins] = useState("");
  const [ends, setEnds] = useState("");
  const read = () => {
    readTestPoints(session.id, begins, ends).then(
      (points) => {
        onSaid(points.length === 0 ? "The feed brought nothing pumped between these times." : "");
        onRead(points);
      },
      (error: unknown) => {
        onSaid(saidOf(error, (path) => (path === "/begins" ? "From" : "To")));
      },
    );
  };
  return (
    <span className="flex flex-wrap items-center gap-1.5 text-[12px] text-mute">
      or from the feed
      <input
        className="field w-32"
        aria-label="Read from"
        placeholder="YYYY-MM-DD HH:MM"
        value={begins}
        onChange={(event) => setBegins(event.target.value)}
      />
      to
      <input
        className="field w-32"
        aria-label="Read to"
        placeholder="YYYY-MM-DD HH:MM"
        value={ends}
        onChange={(event) => setEnds(event.target.value)}
      />
      <Button onClick={read}>Read</Button>
    </span>
  );
}
