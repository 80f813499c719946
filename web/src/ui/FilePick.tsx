// The hidden input by which a file is chosen; a button clicks it.
import type { RefObject } from "react";

interface Props {
  ref: RefObject<HTMLInputElement | null>;
  label: string;
  accept: string;
  onPick: (file: File) => void;
}

export function FilePick({ ref, label, accept, onPick }: Props) {
  return (
    <input
      ref={ref}
      type="file"
      accept={accept}
      className="hidden"
      aria-label={label}
      onChange={(event) => {
        const chosen = event.target.files?.[0];
        event.target.value = "";
        if (chosen) onPick(chosen);
      }}
    />
  );
}
