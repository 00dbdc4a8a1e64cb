/** Opens the shop before the first request, so that a folder that is locked, damaged or too new is said at the start. */

export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== "nodejs") return;
  const { startShop } = await import("./server/start");
  await startShop();
}
