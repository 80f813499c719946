// The focus never falls to the page itself: where what held it is gone or can no longer be used, what is nearest takes it.
import { useEffect } from "react";

const FOCUSABLE = 'button:not(:disabled), a[href], input:not(:disabled), select:not(:disabled), summary, [tabindex="0"]';

function usable(node: Element): boolean {
  return node.isConnected && !node.matches(":disabled, [aria-disabled=true]");
}

/** The nearest that is left around something that is gone. */
function nearest(around: readonly Element[]): HTMLElement | null {
  for (const node of around) {
    if (!node.isConnected) continue;
    if (node.matches("[tabindex]")) return node as HTMLElement;
    const inside = node.querySelector<HTMLElement>(FOCUSABLE);
    if (inside !== null) return inside;
  }
  return null;
}

export function useKeptFocus(): void {
  useEffect(() => {
    let held: Element | null = null;
    let around: Element[] = [];
    const onFocus = (event: FocusEvent) => {
      held = event.target as Element;
      around = [];
      for (let node = held.parentElement; node !== null && node !== document.body; node = node.parentElement) around.push(node);
    };
    const check = () => {
      const active = document.activeElement;
      if (active !== null && active !== document.body) return;
      if (held === null || usable(held) || document.querySelector("[role=dialog], [role=menu]") !== null) return;
      held = null;
      nearest(around)?.focus({ preventScroll: true });
    };
    // after a change has been drawn and whoever wants the focus has taken it
    const watch = new MutationObserver(() => requestAnimationFrame(check));
    watch.observe(document.body, { childList: true, subtree: true, attributes: true, attributeFilter: ["disabled"] });
    document.addEventListener("focusin", onFocus);
    return () => {
      watch.disconnect();
      document.removeEventListener("focusin", onFocus);
    };
  }, []);
}
