import { notFound } from "next/navigation";
import { findStation } from "@/core/tape/stations";
import { JobFrame } from "@/ui/frame/job-frame";
import { StationSheet } from "@/ui/stations/station-sheet";

type Props = { params: Promise<{ id: string; station: string }> };

export async function generateMetadata({ params }: Props) {
  const { id, station } = await params;
  return { title: `${findStation(station)?.name ?? "Job"} · job ${id} · Scutum` };
}

export default async function StationPage({ params }: Props) {
  const station = findStation((await params).station);
  if (!station) notFound();
  return (
    <JobFrame station={station.id}>
      <StationSheet station={station.id} />
    </JobFrame>
  );
}
