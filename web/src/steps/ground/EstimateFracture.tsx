// A fracture profile from pore pressure and overburden, by a textbook estimator; it replaces the table as one undo step.
import { useState } from "react";
import { Link } from "react-router";
import * as api from "../../design/api";
import { useReference } from "../../design/reference";
import { useBench } from "../../design/context";
import { Button } from "../../ui/Button";
import { Modal } from "../../ui/Modal";
import { OpensDialog } from "../../ui/OpensDialog";
import { parseNumber } from "../../ui/numbers";

const METHODS = {
  Eaton: { formula: "eaton_fracture", factor: "Poisson's ratio", usual: "0.4" },
  "Hubbert and Willis": { formula: "hubbert_willis_fracture", factor: null, usual: "" },
  "Matthews and Kelly": { formula: "matthews_kelly_fracture", factor: "Matrix stress ratio", usual: "0.7" },
} as const;
type Method = keyof typeof METHODS;

export function EstimateFracture() {
  return <OpensDialog label="Estimate from overburden…">{(close) => <EstimateDialog close={close} />}</OpensDialog>;
}

function EstimateDialog({ close }: { close: () => void }) {
  const { session } = useBench();
  const reference = useReference();
  const [method, setMethod] = useState<Method>("Eaton");
  const [text, setText] = useState<string | null>(null);
  const [wrong, setWrong] = useState("");
  const { factor, usual, formula } = METHODS[method];
  const estimate = async () => {
    const value = factor === null ? 0 : parseNumber(text ?? usual);
    if (value === null) {
      setWrong(`"${text}" is not a number.`);
      return;
    }
    try {
      const { rows } = await api.estimateFracture(
        session.snapshot().document,
        method,
        method === "Eaton" ? value : 0.4,
        method === "Matthews and Kelly" ? value : 0.7,
      );
      session.edit([{ path: "/ground/fracture", value: rows }]);
      close();
    } catch (error) {
      setWrong(api.saidOf(error, (path) => reference.words(path)));
    }
  };
  return (
    <Modal open onOpenChange={close} title="Estimate the fracture profile" width="w-[26rem]">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void estimate();
        }}
      >
        <label className="mb-1 flex items-center justify-between">
          Method
          <select
            className="w-48 rounded border border-rule bg-sheet px-1"
            value={method}
            onChange={(event) => {
              setMethod(event.target.value as Method);
              setText(null);
              setWrong("");
            }}
          >
            {Object.keys(METHODS).map((m) => (
              <option key={m}>{m}</option>
            ))}
          </select>
        </label>
        {factor && (
          <label className="flex items-center justify-between">
            {factor}
            <input
              className="cell w-24! border-rule! text-right"
              aria-label={factor}
              value={text ?? usual}
              onChange={(event) => {
                setText(event.target.value);
                setWrong("");
              }}
            />
          </label>
        )}
        <p className="mt-2 text-[12px] text-mute">
          An estimate is no measurement: a leak-off test replaces it at its depth.{" "}
          <Link to={`/formulas/${formula}`} className="text-petrol underline">
            The equation
          </Link>
        </p>
        {wrong && (
          <p role="alert" className="mt-1 text-brick">
            {wrong}
          </p>
        )}
        <p className="mt-3 flex gap-2">
          <Button kind="act" type="submit">
            Replace the fracture profile
          </Button>
          <Button onClick={close}>Leave it</Button>
        </p>
      </form>
    </Modal>
  );
}
