import "@fontsource/b612/400.css";
import "@fontsource/b612/700.css";
import "@fontsource/b612-mono/400.css";
import "@fontsource/b612-mono/700.css";
import "./globals.css";
import type { Metadata, Viewport } from "next";
import { cookies } from "next/headers";
import type { ReactNode } from "react";
import { languageOf } from "@/core/shop/settings";
import { db } from "@/server/db";
import { getSettings } from "@/server/settings";
import { Speaks } from "@/ui/frame/speaks";
import { Awake } from "./awake";
import { StoreByKeys } from "@/ui/forms/store-by-keys";
import { KeepOffline } from "./keep-offline";

export const metadata: Metadata = { title: "Scutum", description: "A bench companion for tube amplifier technicians" };
export const viewport: Viewport = { width: "device-width", initialScale: 1 };
/** Every page reads the shop's data and carries a fresh nonce. */
export const dynamic = "force-dynamic";

export default async function RootLayout({ children }: { children: ReactNode }) {
  const theme = (await cookies()).get("scutum-theme")?.value === "ledger" ? "ledger" : "enamel";
  return (
    <html lang="en" data-theme={theme} data-awake="false">
      <body>
        <Speaks language={languageOf(await getSettings(await db()))}>{children}</Speaks>
        <KeepOffline />
        <Awake />
        <StoreByKeys />
      </body>
    </html>
  );
}
