// The tally on paper: as CSV for the pipe rack, and as pages for the rig floor.
import { Download, Printer } from "lucide-react";
import { PaperLinks } from "../../ui/PaperLinks";

export function RackLinks() {
  return (
    <PaperLinks
      papers={[
        { file: "tally.csv", text: "Tally for the rack, CSV", Icon: Download },
        { file: "floor.pdf", text: "Pages for the rig floor, PDF", Icon: Printer },
      ]}
    />
  );
}
