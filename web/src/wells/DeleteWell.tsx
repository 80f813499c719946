// A well goes to the bin, from where it is put back.
import { Trash2 } from "lucide-react";
import type { DesignItem } from "../design/types";

export function DeleteWell({ design, onDelete }: { design: DesignItem; onDelete: (wellId: number) => void }) {
  return (
    <button
      type="button"
      className="text-mute hover:text-brick"
      aria-label={`Delete ${design.well_name}`}
      title="Put the well into the bin"
      onClick={() => {
        onDelete(design.well_id);
      }}
    >
      <Trash2 size={14} className="inline" aria-hidden />
    </button>
  );
}
