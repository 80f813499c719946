// Where the feed comes from, beyond which a departure is told, and readings taken from a file.
import { useRef, useState } from "react";
import { putFeed, saidOf, takeFeedFile } from "../../design/api";
import { useBench } from "../../design/context";
import type { FeedSource, FeedView, Limits, Quantity } from "../../design/types";
import { Button } from "../../ui/Button";
import { FilePick } from "../../ui/FilePick";
import { Choice, NumberField, TextField } from "../../ui/Field";
import { useUnits } from "../../ui/units";
import { FeedCodes } from "./FeedCodes";

const LIMITS: readonly (readonly [keyof Limits, string, Quantity, number])[] = [
  ["pit_gain_bbl", "Pit gain", "volume", 5],
  ["pit_loss_bbl", "Pit loss", "volume", 10],
  ["flow_percent", "Flow out beside flow in", "percent", 10],
  ["window_minutes", "Looked back over", "minutes", 15],
  ["hook_percent", "Hook load, of the string", "percent", 15],
  ["pump_psi", "Cement pump pressure", "pressure", 250],
  ["pump_percent", "or of the planned one", "percent", 20],
  ["past_plug_bbl", "Past the planned bump", "volume", 2],
  ["returns_percent", "Returns under", "percent", 70],
  ["behind_days", "Days beside the plan", "days", 0.5],
];
const USUAL: FeedSource = {
  host: "127.0.0.1",
  port: 8766,
  protocol: "WITS level 0",
  units: "field",
  codes: {},
  limits: Object.fromEntries(LIMITS.map(([key, , , usual]) => [key, usual])) as Limits,
};

export function FeedForm({ feed, onSet }: { feed: FeedView; onSet: (feed: FeedView) => void }) {
  const { session } = useBench();
  const units = useUnits();
  const file = useRef<HTMLInputElement>(null);
  const [source, setSource] = useState<FeedSource>(feed.source == null || feed.simulated ? USUAL : feed.source);
  const [said, setSaid] = useState("");
  const reading = feed.on && !feed.simulated;
  const put = (next: FeedSource, on: boolean) => {
    setSource(next);
    putFeed(session.id, next, on).then(
      (view) => {
        setSaid("");
        onSet(view);
      },
      (error: unknown) => {
        setSaid(saidOf(error, (path) => path.split("/").pop()!.replaceAll("_", " ")));
      },
    );
  };
  const take = (chosen: File) => {
    takeFeedFile(session.id, chosen).then(
      (taken) => setSaid(`${taken.readings.toLocaleString("en-US")} readings taken, ${taken.bad_lines} lines not understood.`),
      (error: unknown) => setSaid(saidOf(error, () => "The file")),
    );
  };
  return (
    <details className="border-t border-rule pt-1.5" open={!feed.on} data-form="feed">
      <summary className="text-[13px] font-semibold">Feed of the rig</summary>
      <div className="bordered mt-1 grid max-w-md grid-cols-[9.5rem_1fr] items-center gap-x-2 text-[13px]">
        <span>Host</span>
        <TextField label="Host" place="feed/host" value={source.host} onCommit={(host) => setSource({ ...source, host: host.trim() })} />
        <span>Port</span>
        <TextField
          label="Port"
          place="feed/port"
          value={String(source.port)}
          onCommit={(text) => setSource({ ...source, port: Number(text.trim()) || 0 })}
        />
        <span>Protocol</span>
        <Choice
          label="Protocol"
          place="feed/protocol"
          value={source.protocol}
          options={[
            { value: "WITS level 0", text: "WITS level 0" },
            { value: "CSV", text: "CSV, a line a reading" },
          ]}
          onCommit={(protocol) => setSource({ ...source, protocol })}
        />
        <span>Units of the feed</span>
        <Choice
          label="Units of the feed"
          place="feed/units"
          value={source.units}
          options={[
            { value: "field", text: "field" },
            { value: "metric", text: "metric" },
          ]}
          onCommit={(chosen) => setSource({ ...source, units: chosen })}
        />
      </div>
      <p className="mt-1.5 flex flex-wrap items-center gap-1.5">
        <Button kind="act" onClick={() => put(source, true)}>
          {reading ? "Connect anew" : "Connect"}
        </Button>
        {reading && <Button onClick={() => put(source, false)}>Disconnect</Button>}
        <Button onClick={() => file.current?.click()}>Take a CSV file</Button>
        <FilePick ref={file} label="Readings as a CSV file" accept=".csv,.txt" onPick={take} />
      </p>
      {said !== "" && (
        <p role="status" className="text-[12.5px]">
          {said}
        </p>
      )}
      {source.protocol === "WITS level 0" && <FeedCodes codes={source.codes} onChange={(codes) => put({ ...source, codes }, reading)} />}
      <details className="mt-1.5">
        <summary className="text-[12.5px] text-mute">Told beyond these limits</summary>
        <div className="bordered mt-1 grid max-w-md grid-cols-[11.5rem_5rem_3rem] items-center gap-x-2 text-[13px]">
          {LIMITS.map(([key, title, quantity]) => (
            <div key={key} className="contents">
              <span>{title}</span>
              <NumberField
                label={title}
                place={`feed/limits/${key}`}
                quantity={quantity}
                value={source.limits[key]}
                onCommit={(value) => {
                  if (value !== null) put({ ...source, limits: { ...source.limits, [key]: value } }, reading);
                }}
              />
              <span className="text-mute">{units.unit(quantity)}</span>
            </div>
          ))}
        </div>
      </details>
    </details>
  );
}
