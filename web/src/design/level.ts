// The level of a pressure that the rig's gauges read: told where the wellhead stands on the sea floor and pressures there differ.
import { useDocument } from "./context";

export const useAtRig = () => useDocument((d) => (d.site.setting === "subsea" ? ", at the rig floor" : ""));
