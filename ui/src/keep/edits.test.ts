import { describe, expect, it } from "vitest";
import { added, type Change, type Edit, letGo, refused, sending, settled } from "./edits";

const change = (key: string, body: string, more: Partial<Change> = {}): Change => ({
  doc: "kit/loft",
  label: "Kit",
  method: "PUT",
  path: "/api/kits/loft",
  body,
  key,
  page: "one",
  at: 0,
  read: 4,
  ...more,
});
const keys = (edits: Edit[]) => edits.map((e) => e.key);

describe("edits that wait", () => {
  it("let go, leave the one that follows made from what they were made from", () => {
    const sent = sending(added([], change("a", "first")), "a");
    const both = added(sent, change("b", "second", { read: 9 }));
    expect(both.map((e) => e.read)).toEqual([4, null]);
    const left = letGo(both, "a");
    expect(keys(left)).toEqual(["b"]);
    expect(left[0]?.read).toBe(4);
  });

  it("let go, touch nothing of another page or another document", () => {
    const mine = sending(added([], change("a", "mine")), "a");
    const theirs = added(mine, change("b", "theirs", { page: "two", read: 7 }));
    const other = added(theirs, change("c", "other", { doc: "kit/cellar", read: 2 }));
    expect(letGo(other, "a").map((e) => [e.key, e.read])).toEqual([
      ["b", 7],
      ["c", 2],
    ]);
  });

  it("saved, hand their revision to the one that follows and to no other", () => {
    const both = added(sending(added([], change("a", "first")), "a"), change("b", "second"));
    expect(settled(both, "a", 12).map((e) => [e.key, e.read])).toEqual([["b", 12]]);
    const apart = added(
      sending(added([], change("a", "first")), "a"),
      change("c", "other", { doc: "kit/cellar", read: 2 }),
    );
    expect(settled(apart, "a", 12).map((e) => e.read)).toEqual([2]);
  });

  it("refused for what they hold, give way to the one that holds more", () => {
    const both = added(sending(added([], change("a", "first")), "a"), change("b", "second"));
    const after = refused(both, "a", "no such kit", null);
    expect(after.map((e) => [e.key, e.read, e.says])).toEqual([["b", 4, null]]);
    const elsewhere = refused(both, "a", "changed elsewhere", 8);
    expect(elsewhere.map((e) => [e.key, e.says, e.head])).toEqual([["b", "changed elsewhere", 8]]);
  });
});
