// A button that opens a dialog, which is made anew each time.
import type { ReactNode } from "react";
import { useState } from "react";
import { Button } from "./Button";

export function OpensDialog({ label, children }: { label: string; children: (close: () => void) => ReactNode }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button
        className="mt-2"
        onClick={() => {
          setOpen(true);
        }}
      >
        {label}
      </Button>
      {open &&
        children(() => {
          setOpen(false);
        })}
    </>
  );
}
