// The design was deleted while it was worked on: nothing is saved any more, and the work can become a well of its own.
import { useState } from "react";
import { useNavigate } from "react-router";
import * as api from "../design/api";
import { useBench } from "../design/context";

export function GoneBanner() {
  const { session } = useBench();
  const navigate = useNavigate();
  const [refusal, setRefusal] = useState("");
  const saveAsNew = async () => {
    try {
      const design = await session.saveAsNew();
      void navigate(`/designs/${design}/depths`);
    } catch (error) {
      setRefusal(error instanceof api.ProblemError ? error.problem.detail : "The server is not reached.");
    }
  };
  return (
    <div role="alert" className="flex flex-wrap items-center gap-3 bg-gold px-3 py-1.5 text-[13px] text-[#16211e]">
      <span>This design was deleted elsewhere. What you see is kept in this browser, and is saved no more.</span>
      <button type="button" className="underline" onClick={() => void saveAsNew()}>
        Save it as a new well
      </button>
      <span>The deleted one may still be in the bin of the list of wells.</span>
      {refusal && <strong>{refusal}</strong>}
    </div>
  );
}
