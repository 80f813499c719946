// Whether keys without Ctrl do anything: a person who speaks or taps by accident can switch them off.
const KEY = "knollstack.singleKeys";

export function singleKeysOn(): boolean {
  return localStorage.getItem(KEY) !== "no";
}

export function setSingleKeys(on: boolean): void {
  localStorage.setItem(KEY, on ? "yes" : "no");
}
