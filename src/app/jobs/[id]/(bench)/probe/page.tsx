import { ProbeMode } from "@/ui/probe/probe-mode";

type Props = { params: Promise<{ id: string }>; searchParams: Promise<{ order?: string }> };

export async function generateMetadata({ params }: Props) {
  return { title: `Probe · job ${(await params).id} · Scutum` };
}

export default async function ProbePage({ searchParams }: Props) {
  const { order } = await searchParams;
  return <ProbeMode order={order === "chain" || order === "suspects" || order === "cold" ? order : "movement"} />;
}
