import { redirect } from "next/navigation";

/** A job without a station opens at its first. */
export default async function JobPage({ params }: { params: Promise<{ id: string }> }) {
  redirect(`/jobs/${encodeURIComponent((await params).id)}/intake`);
}
