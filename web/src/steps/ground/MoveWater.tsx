// A whole well at sea set in other water: everything under the sea floor goes with it, as one step of undo.
import { useState } from "react";
import * as api from "../../design/api";
import { useReference } from "../../design/reference";
import { useBench, useDocument } from "../../design/context";
import { Button } from "../../ui/Button";
import { Modal } from "../../ui/Modal";
import { OpensDialog } from "../../ui/OpensDialog";
import { parseNumber } from "../../ui/numbers";
import { useUnits } from "../../ui/units";

export function MoveWater() {
  return <OpensDialog label="Move the well to other water…">{(close) => <MoveDialog close={close} />}</OpensDialog>;
}

function MoveDialog({ close }: { close: () => void }) {
  const { session } = useBench();
  const reference = useReference();
  const units = useUnits();
  const held = useDocument((d) => d.site.water_depth_ft);
  const [text, setText] = useState(units.number(held, "depth").replace(/,/g, ""));
  const [wrong, setWrong] = useState("");
  const move = async () => {
    const value = parseNumber(text);
    if (value === null) {
      setWrong(`"${text}" is not a number.`);
      return;
    }
    try {
      const { changes } = await api.moveToWater(session.snapshot().document, value / units.factor("depth"));
      if (changes.length > 0) session.edit(changes);
      close();
    } catch (error) {
      setWrong(api.saidOf(error, (path) => reference.words(path)));
    }
  };
  return (
    <Modal open onOpenChange={close} title="Move the well to other water" width="w-[26rem]">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void move();
        }}
      >
        <label className="flex items-center justify-between">
          Water depth, {units.unit("depth")}
          <input
            className="cell w-24! border-rule! text-right"
            aria-label="New water depth"
            value={text}
            onChange={(event) => {
              setText(event.target.value);
              setWrong("");
            }}
          />
        </label>
        <p className="mt-2 text-[12px] text-mute">
          All depths below the sea move with its floor. Rock keeps its pressure over sea water, muds keep theirs at the shoe: their
          equivalent weights change.
        </p>
        {wrong && (
          <p role="alert" className="mt-1 text-brick">
            {wrong}
          </p>
        )}
        <p className="mt-3 flex gap-2">
          <Button kind="act" type="submit">
            Move the well
          </Button>
          <Button onClick={close}>Leave it</Button>
        </p>
      </form>
    </Modal>
  );
}
