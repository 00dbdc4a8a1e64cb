import Link from "next/link";

export default function NotFound() {
  return (
    <main className="p-8">
      <p className="text-2xl font-bold">There is no such page here.</p>
      <p className="mt-2">
        The job may have another number.{" "}
        <Link className="underline" href="/">
          The bench board
        </Link>{" "}
        has a search.
      </p>
    </main>
  );
}
