import type { ButtonHTMLAttributes } from "react";

type Kind = "plain" | "bar" | "act";

const KINDS: Record<Kind, string> = {
  plain: "border-rule hover:border-petrol text-ink",
  bar: "border-white/25 text-bar-ink hover:border-white/60",
  act: "border-petrol text-petrol font-semibold hover:bg-petrol hover:text-on-petrol text-left",
};

export function Button({ kind = "plain", className = "", ...rest }: ButtonHTMLAttributes<HTMLButtonElement> & { kind?: Kind }) {
  return (
    <button
      type="button"
      className={`inline-flex items-center gap-1.5 rounded border px-2 py-0.5 text-[12px] leading-5 disabled:opacity-40 ${KINDS[kind]} ${className}`}
      {...rest}
    />
  );
}
