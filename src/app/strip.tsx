import { cookies } from "next/headers";
import type { Settings } from "@/core/shop/settings";
import { TopStrip } from "@/ui/frame/top-strip";

/** The strip with the shop's name and the technician whom this browser has chosen. */
export async function Strip({ settings }: { settings: Settings }) {
  return <TopStrip shop={settings.shopName} technicians={settings.technicians} who={await technician(settings)} />;
}

export async function technician(settings: Settings): Promise<string> {
  const chosen = (await cookies()).get("scutum-who")?.value;
  const name = chosen && decodeURIComponent(chosen);
  return name && settings.technicians.includes(name) ? name : settings.technicians[0]!;
}
