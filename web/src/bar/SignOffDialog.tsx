// Sign-off of a design: who checked and approved its newest revision, and what changed since it was approved last.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import * as api from "../design/api";
import { useEvaluated } from "../design/context";
import type { Finding, SignatureItem, SignOff } from "../design/types";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import { moment } from "../ui/moment";
import { useUnits } from "../ui/units";

export const SIGN_WORDS: Record<SignOff["state"], string> = { approved: "approved", checked: "checked", "not approved": "not approved" };

export function useSignOff(design: number, revision: number, enabled: boolean) {
  return useQuery({ queryKey: ["sign-off", design, revision], queryFn: () => api.getSignOff(design), enabled, retry: false });
}

export function SignOffDialog({ design, revision, saved, close }: { design: number; revision: number; saved: boolean; close: () => void }) {
  const client = useQueryClient();
  const { data, isError } = useSignOff(design, revision, saved);
  const [note, setNote] = useState("");
  const [refusal, setRefusal] = useState("");
  const sign = async (kind: SignatureItem["kind"]) => {
    try {
      const stands = await api.sign(design, data!, kind, note.trim());
      client.setQueryData(["sign-off", design, revision], stands);
      setNote("");
      setRefusal("");
    } catch (error) {
      setRefusal(error instanceof api.ProblemError ? error.problem.detail : "The server is not reached.");
      await client.invalidateQueries({ queryKey: ["sign-off", design] });
    }
  };
  return (
    <Modal open onOpenChange={close} title={`Sign-off, revision ${revision}`} width="w-[40rem]">
      <div className="min-h-0 overflow-auto text-[13px] text-ink">
        {!saved && <p className="text-mute">The last edit is not saved yet.</p>}
        {isError && <p className="text-brick">The sign-off cannot be read.</p>}
        {data && (
          <>
            <Stands stands={data} />
            <OpenFindings />
            {data.why_not !== "" && <p className="mt-2 text-mute">{data.why_not}</p>}
            {(data.may_check || data.may_approve) && (
              <label className="mt-3 block">
                Note with the signature
                <input
                  className="cell mt-0.5 border-rule!"
                  maxLength={2000}
                  value={note}
                  onChange={(event) => {
                    setNote(event.target.value);
                  }}
                />
              </label>
            )}
            {refusal && (
              <p role="alert" className="mt-2 text-brick">
                {refusal}
              </p>
            )}
            <p className="mt-3 flex gap-2">
              {data.may_check && (
                <Button kind="act" onClick={() => void sign("checked")}>
                  Sign as checked
                </Button>
              )}
              {data.may_approve && (
                <Button kind="act" onClick={() => void sign("approved")}>
                  Approve revision {data.revision}
                </Button>
              )}
              {data.may_withdraw && <Button onClick={() => void sign("withdrawn")}>Withdraw the sign-off</Button>}
            </p>
            <p className="mt-3 text-[12px] text-mute">
              A signature is for this document and for what it evaluates to; any later edit is another revision and not approved. It
              replaces no review that rules or the operator ask for.
            </p>
          </>
        )}
      </div>
    </Modal>
  );
}

/** What whoever signs should have seen. */
function OpenFindings() {
  const found = useEvaluated((e) => e.findings);
  if (found === undefined) return null;
  const count = (severity: Finding["severity"]) => found.filter((f) => f.severity === severity).length;
  const stops = count("stop");
  return (
    <p className={`mt-2 ${stops > 0 ? "font-semibold text-brick" : ""}`}>
      Open findings: {stops} {stops === 1 ? "stop" : "stops"}, {count("caution")} {count("caution") === 1 ? "caution" : "cautions"},{" "}
      {count("unknown")} unknown.
    </p>
  );
}

function Stands({ stands }: { stands: SignOff }) {
  const units = useUnits();
  const last = stands.last_approval;
  const since = last !== null && last.number !== stands.revision;
  return (
    <>
      <p className="font-semibold">
        Revision {stands.revision} is {SIGN_WORDS[stands.state]}.
      </p>
      <ul>
        {stands.signatures.map((s) => (
          <li key={s.kind}>
            {s.kind === "approved" ? "Approved" : "Checked"} by {s.name} ({s.role}), {moment(s.signed_at)}
            {s.note && <>: {s.note}</>}
            {s.same_results === false && (
              <strong className="block text-brick">The program evaluates it otherwise today than when it was signed.</strong>
            )}
          </li>
        ))}
      </ul>
      {since && (
        <>
          <p className="mt-2">
            Revision {last.number} was approved by {last.name}, {moment(last.signed_at)}. Changed since:
          </p>
          <ul className="max-h-52 overflow-auto">
            {stands.changes.length === 0 && <li className="text-mute">nothing in words</li>}
            {stands.changes.map((change) => (
              <li key={change.place + change.subject}>
                {change.subject} <span className="text-mute">{units.words(change.before)} →</span> {units.words(change.after)}
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}
