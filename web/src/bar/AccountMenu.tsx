// Who is signed in: the role, another password, and the way out.
import { UserRound } from "lucide-react";
import { useState } from "react";
import * as api from "../design/api";
import { usePeople } from "../people";
import { BarPopover } from "../ui/BarPopover";
import { Button } from "../ui/Button";

const ROLE_WORDS = {
  viewer: "Viewer: looks and tries out, saves nothing",
  designer: "Designer: changes wells, checks the work of others",
  approver: "Approver: changes wells, checks and approves the work of others",
};

export function AccountMenu() {
  const { name, role, again } = usePeople();
  const [changing, setChanging] = useState(false);
  const leave = async () => {
    await api.signOut().catch(() => undefined);
    again();
  };
  return (
    <BarPopover
      label="Account"
      onOpenChange={() => {
        setChanging(false);
      }}
      trigger={
        <Button kind="bar" className="max-w-32" title={`Signed in as ${name}`}>
          <UserRound size={13} aria-hidden className="shrink-0" /> <span className="truncate">{name}</span>
        </Button>
      }
    >
      <p className="font-semibold">{name}</p>
      <p className="mb-2 text-mute">{role && ROLE_WORDS[role]}</p>
      {changing ? (
        <PasswordForm done={again} />
      ) : (
        <p className="flex gap-2">
          <Button onClick={() => void leave()}>Sign out</Button>
          <Button
            onClick={() => {
              setChanging(true);
            }}
          >
            Change password…
          </Button>
        </p>
      )}
    </BarPopover>
  );
}

function PasswordForm({ done }: { done: () => void }) {
  const [old, setOld] = useState("");
  const [next, setNext] = useState("");
  const [refusal, setRefusal] = useState("");
  const change = async () => {
    try {
      await api.changePassword(old, next);
      done();
    } catch (error) {
      const problem = error instanceof api.ProblemError ? error.problem : null;
      setRefusal(problem?.faults[0] ? `Expected ${problem.faults[0].expected}.` : (problem?.detail ?? "The server is not reached."));
    }
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void change();
      }}
    >
      <PasswordField label="Old password" kind="current-password" value={old} onChange={setOld} />
      <PasswordField label="New password" kind="new-password" value={next} onChange={setNext} />
      {refusal && (
        <p role="alert" className="mb-2 text-brick">
          {refusal}
        </p>
      )}
      <Button kind="act" type="submit" disabled={old === "" || next === ""}>
        Change it, and sign in again
      </Button>
    </form>
  );
}

interface PasswordFieldProps {
  label: string;
  kind: "current-password" | "new-password";
  value: string;
  onChange: (value: string) => void;
}

function PasswordField({ label, kind, value, onChange }: PasswordFieldProps) {
  return (
    <label className="mb-2 block">
      {label}
      <input
        className="cell border-rule!"
        type="password"
        autoComplete={kind}
        value={value}
        onChange={(event) => {
          onChange(event.target.value);
        }}
      />
    </label>
  );
}
