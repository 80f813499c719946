// WITS items that this rig sends under codes of its own, beside the standard ones.
import { useState } from "react";
import type { Channel } from "../../design/types";
import { Button } from "../../ui/Button";
import { Choice, TextField } from "../../ui/Field";
import { CHANNEL_TITLES } from "./channels";

const CODE = /^[0-9]{4}$/;
const OPTIONS = Object.entries(CHANNEL_TITLES).map(([value, text]) => ({ value: value as Channel, text }));

interface Props {
  codes: Record<string, Channel>;
  onChange: (codes: Record<string, Channel>) => void;
}

export function FeedCodes({ codes, onChange }: Props) {
  const [code, setCode] = useState("");
  const [channel, setChannel] = useState<Channel>("pit_bbl");
  const [wrong, setWrong] = useState("");
  const add = () => {
    if (!CODE.test(code)) {
      setWrong(`Code: ${code === "" ? "nothing" : code}; expected record and item, four digits, as 0126.`);
      return;
    }
    setWrong("");
    setCode("");
    onChange({ ...codes, [code]: channel });
  };
  return (
    <details className="mt-1.5">
      <summary className="text-[12.5px] text-mute">WITS codes beside the standard ones</summary>
      <div className="bordered mt-1 grid max-w-md grid-cols-[5rem_1fr_5.5rem] items-center gap-x-2 gap-y-1 text-[13px]">
        {Object.entries(codes).map(([own, means]) => (
          <div key={own} className="contents" data-code={own}>
            <span className="tabular-nums">{own}</span>
            <span>{CHANNEL_TITLES[means]}</span>
            <Button onClick={() => onChange(Object.fromEntries(Object.entries(codes).filter(([key]) => key !== own)))}>Remove</Button>
          </div>
        ))}
        <TextField label="Code" place="feed/code" value={code} onCommit={(text) => setCode(text.trim())} />
        <Choice label="Read as" place="feed/channel" value={channel} options={OPTIONS} onCommit={setChannel} />
        <Button onClick={add}>Add code</Button>
      </div>
      {wrong !== "" && (
        <p role="alert" className="text-[12.5px] text-brick">
          {wrong}
        </p>
      )}
    </details>
  );
}
