"use client";
/** The strip above pages that belong to no job: the shop, who is at the bench, the theme. */

import Link from "next/link";
import { useRouter } from "next/navigation";
import { Moon, Sun } from "lucide-react";
import type { ReactNode } from "react";

const YEAR = 365 * 24 * 3600;
const remember = (name: string, value: string) => {
  document.cookie = `${name}=${encodeURIComponent(value)}; path=/; max-age=${YEAR}; samesite=strict`;
};

export interface TopStripProps {
  shop: string;
  technicians: string[];
  who: string;
  /** Set where people sign in: then nobody is chosen from a list. */
  signedIn?: ReactNode;
}

export function TopStrip({ shop, technicians, who, signedIn }: TopStripProps) {
  const router = useRouter();
  function turn(theme: "enamel" | "ledger") {
    remember("scutum-theme", theme);
    document.documentElement.dataset.theme = theme;
  }
  return (
    <header className="no-print flex flex-wrap items-center gap-x-1 gap-y-2 border-b sm:gap-3 border-base-300 bg-base-200 px-4 py-2">
      <Link href="/" className="text-xl font-bold tracking-wide">
        Scutum
      </Link>
      <span className="soft flex-1 truncate">{shop}</span>
      {signedIn ?? (
        <label className="flex items-center gap-2 text-sm">
          At the bench
          <select
            className="select w-28"
            value={who}
            onChange={(e) => {
              remember("scutum-who", e.target.value);
              router.refresh();
            }}
          >
            {technicians.map((t) => (
              <option key={t}>{t}</option>
            ))}
          </select>
        </label>
      )}
      <Link href="/library" className="btn btn-ghost">
        Amp library
      </Link>
      <Link href="/guide" className="btn btn-ghost">
        Guide
      </Link>
      <Link href="/settings" className="btn btn-ghost">
        Settings
      </Link>
      <span className="flex">
        <button className="btn btn-ghost px-3" onClick={() => turn("enamel")} aria-label="Dark" title="Dark">
          <Moon aria-hidden className="size-5" />
        </button>
        <button className="btn btn-ghost px-3" onClick={() => turn("ledger")} aria-label="Light" title="Light">
          <Sun aria-hidden className="size-5" />
        </button>
      </span>
    </header>
  );
}
