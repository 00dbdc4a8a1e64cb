import { newId } from "./new-id";

test("over plain HTTP, where the browser gives no UUID, one is made of random bytes: as the tape takes it, and each another", () => {
  const own = crypto.randomUUID;
  Object.defineProperty(crypto, "randomUUID", { value: undefined, configurable: true });
  try {
    const ids = Array.from({ length: 500 }, newId);
    for (const id of ids) expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
    expect(new Set(ids).size).toBe(500);
  } finally {
    Object.defineProperty(crypto, "randomUUID", { value: own, configurable: true });
  }
  expect(newId()).toHaveLength(36);
});
