// Who works here: the name that goes with every revision, given once and kept in this browser.
import { UserRound } from "lucide-react";
import { useState } from "react";
import { keepName, usePersonName } from "../design/person";
import { usePeople } from "../people";
import { BarPopover } from "../ui/BarPopover";
import { Button } from "../ui/Button";
import { AccountMenu } from "./AccountMenu";

const LONGEST = 100;

export function PersonMenu() {
  const people = usePeople();
  return people.accounts ? <AccountMenu /> : <NameMenu />;
}

function NameMenu() {
  const name = usePersonName();
  const [open, setOpen] = useState(false);
  return (
    <BarPopover
      label="Your name"
      open={open}
      onOpenChange={setOpen}
      trigger={
        <Button
          kind="bar"
          className="max-w-32"
          title={name === "" ? "Your name goes with every revision" : `Revisions are saved by ${name}`}
        >
          <UserRound size={13} aria-hidden className="shrink-0" /> <span className="truncate">{name === "" ? "Your name" : name}</span>
        </Button>
      }
    >
      <NameForm
        done={() => {
          setOpen(false);
        }}
      />
    </BarPopover>
  );
}

export function NameForm({ done, inline = false }: { done: () => void; inline?: boolean }) {
  const [text, setText] = useState(usePersonName());
  return (
    <form
      className={inline ? "flex flex-wrap items-center gap-2" : ""}
      onSubmit={(event) => {
        event.preventDefault();
        keepName(text);
        done();
      }}
    >
      <label className={inline ? "flex items-center gap-2" : "block"}>
        Your name, as it goes with every revision
        <input
          className={`cell border-rule! ${inline ? "w-48!" : "mt-1"}`}
          autoComplete="name"
          maxLength={LONGEST}
          value={text}
          onChange={(event) => {
            setText(event.target.value);
          }}
        />
      </label>
      <span className={inline ? "" : "mt-2 block"}>
        <Button kind="act" type="submit" disabled={text.trim() === ""}>
          Keep
        </Button>
      </span>
    </form>
  );
}
