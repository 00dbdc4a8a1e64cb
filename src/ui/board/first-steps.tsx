/** An empty shop: what to do first. */

import Link from "next/link";
import { words } from "@/core/language/language";

const STEPS: { title: string; says: string; href: string; link: string }[] = [
  {
    title: "What is on your bench?",
    says: "Type the tubes that are in it: the circuit is put together from them, values are typed on the drawing. Or begin with a circuit that is like it, or with a file.",
    href: "/library/new",
    link: "Put its circuit in",
  },
  {
    title: "Take in the amp",
    says: "The owner's name and what the amp is are enough to begin. The stations at the left then lead from intake to the report.",
    href: "/jobs/new",
    link: "New job",
  },
  {
    title: "Set up the shop",
    says: "Its name for the reports, who works here, the mains voltage, tube or valve, and the limits of your safety tests.",
    href: "/settings",
    link: "Open settings",
  },
];

export function FirstSteps() {
  return (
    <section aria-label="First steps" className="py-4">
      <h1 className="text-2xl font-bold">No jobs yet. Three steps to the first one:</h1>
      <ol className="mt-4 grid gap-4 md:grid-cols-3">
        {STEPS.map(({ title, says, href, link }, i) => (
          <li key={href} className="flex flex-col rounded border border-base-300 bg-base-200 p-4">
            <span className="text-lg font-bold">
              {i + 1}. {title}
            </span>
            <span className="mt-1 flex-1">{words(says)}</span>
            <Link href={href} className={`btn mt-3 ${i === 0 ? "btn-primary" : "btn-outline"}`}>
              {link}
            </Link>
          </li>
        ))}
      </ol>
      <p className="soft mt-4">
        New to this? The{" "}
        <Link href="/guide" className="underline">
          user guide
        </Link>{" "}
        shows a repair from start to end. Circuits to look at stand in the{" "}
        <Link href="/library" className="underline">
          amp library
        </Link>
        . Jobs of another bench can be imported under Settings.
      </p>
    </section>
  );
}
