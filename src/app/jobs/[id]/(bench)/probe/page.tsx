import { probingOrder } from "../../probing-order";
import { ProbeMode } from "@/ui/probe/probe-mode";

type Props = { params: Promise<{ id: string }>; searchParams: Promise<{ order?: string }> };

export async function generateMetadata({ params }: Props) {
  return { title: `Probe · job ${(await params).id} · Scutum` };
}

export default async function ProbePage({ searchParams }: Props) {
  return <ProbeMode order={probingOrder((await searchParams).order)} />;
}
