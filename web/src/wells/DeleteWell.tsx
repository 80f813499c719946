// A well is deleted only after one has said so twice.
import { Trash2 } from "lucide-react";
import { AlertDialog } from "radix-ui";
import * as api from "../design/api";
import type { DesignItem } from "../design/types";
import { Button } from "../ui/Button";

export function DeleteWell({ design, onDeleted }: { design: DesignItem; onDeleted: () => void }) {
  return (
    <AlertDialog.Root>
      <AlertDialog.Trigger asChild>
        <button type="button" className="text-mute hover:text-brick" aria-label={`Delete ${design.well_name}`}>
          <Trash2 size={14} className="inline" aria-hidden />
        </button>
      </AlertDialog.Trigger>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 bg-black/40" />
        <AlertDialog.Content className="fixed top-1/3 left-1/2 w-96 -translate-x-1/2 rounded border border-rule bg-sheet p-4 shadow-lg">
          <AlertDialog.Title className="text-[14px] font-semibold">Delete this well?</AlertDialog.Title>
          <AlertDialog.Description className="my-2 text-mute">
            {design.well_name || "The unnamed well"}, with every design and revision, is gone for good. Export its well file first to keep
            it.
          </AlertDialog.Description>
          <div className="flex justify-end gap-2">
            <AlertDialog.Cancel asChild>
              <Button>Keep it</Button>
            </AlertDialog.Cancel>
            <AlertDialog.Action asChild>
              <Button
                className="border-brick text-brick"
                onClick={() => {
                  void api.deleteWell(design.well_id).finally(onDeleted);
                }}
              >
                Delete
              </Button>
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
