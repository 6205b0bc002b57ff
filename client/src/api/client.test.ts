import { afterEach, expect, test, vi } from "vitest";
import { Refused, newId, refusal } from "./client";

afterEach(() => vi.useRealTimers());

test("ids are UUIDs of version 7: later ones sort later, and no two are alike", () => {
  vi.useFakeTimers({ now: Date.UTC(2026, 10, 24) });
  const first = newId();
  vi.advanceTimersByTime(1);
  expect(first < newId()).toBe(true);
  const many = Array.from({ length: 2000 }, newId);
  expect(new Set(many).size).toBe(2000);
  for (const id of many) expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
  // The first 48 bits are the time in milliseconds (RFC 9562, section 5.7).
  expect(Number.parseInt(first.replaceAll("-", "").slice(0, 12), 16)).toBe(Date.UTC(2026, 10, 24));
});

test("a refusal carries what the server said of it", async () => {
  const body = { title: "No.", field: "line", position: 4, suggestion: "12'6", remedies: [] };
  const wrong = await refusal(new Response(JSON.stringify(body), { status: 422 }));
  expect(wrong).toBeInstanceOf(Refused);
  expect(wrong).toMatchObject({
    message: "No.",
    status: 422,
    field: "line",
    position: 4,
    suggestion: "12'6",
    remedies: [],
  });
  expect(await refusal(new Response("<html>", { status: 502 }))).toMatchObject({ status: 502, field: "" });
});
