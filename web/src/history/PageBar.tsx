// The bar of a page that is not the workbench: the way back, and what the page is of.
import { ArrowLeft } from "lucide-react";
import type { ReactNode } from "react";
import { Link } from "react-router";
import { UnitsMenu } from "../bar/UnitsMenu";

export function PageBar({ back, title, children }: { back: string; title: string; children?: ReactNode }) {
  return (
    <header className="no-print flex h-10 shrink-0 items-center gap-3 bg-bar px-3 text-bar-ink">
      <Link to={back} className="flex items-center gap-1 text-[12.5px] text-bar-ink/75 hover:text-bar-ink">
        <ArrowLeft size={13} aria-hidden /> Workbench
      </Link>
      <h1 className="max-w-96 truncate text-[14px] font-semibold" title={title}>
        {title}
      </h1>
      <span className="truncate text-[12.5px] text-bar-ink/75">{children}</span>
      <span className="ml-auto">
        <UnitsMenu />
      </span>
    </header>
  );
}
