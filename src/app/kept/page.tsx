import { KeptPage } from "./kept-page";

export const metadata = { title: "Without the server · Scutum" };

/** Answered by the service worker for any page of the shop while the server is not reached. It holds nothing of the shop itself. */
export default function Page() {
  return <KeptPage />;
}
