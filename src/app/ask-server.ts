/** Asks a route for something and gives its answer, or throws what it says is wrong. */

/** @throws Error whose message is for the person at the screen. */
export async function askServer<T>(method: string, path: string, body?: unknown): Promise<T> {
  const response = await fetch(path, {
    method,
    ...(body === undefined ? {} : { headers: { "content-type": "application/json" }, body: JSON.stringify(body) }),
  }).catch(() => {
    throw new Error("The server is not reached. What you typed is still here; try again.");
  });
  const answer = (await response.json().catch(() => ({}))) as T & { error?: string };
  if (!response.ok) throw new Error(answer.error ?? `The server answered ${response.status}.`);
  return answer;
}
