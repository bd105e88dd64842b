import assert from "node:assert/strict";
import { test } from "node:test";
import { unsaved } from "./unsaved";

test("editors hold what is not saved, and everybody listening is told once", () => {
  let told = 0;
  const stop = unsaved.subscribe(() => {
    told += 1;
  });
  unsaved.hold("one", [{ path: "commands.kiln", value: 1 }]);
  unsaved.hold("two", [{ path: "channel.prefix", value: "?" }]);
  unsaved.hold("two", [{ path: "channel.prefix", value: "?" }]);
  assert.deepEqual(
    unsaved.read().map((one) => one.path),
    ["commands.kiln", "channel.prefix"],
  );
  assert.equal(told, 2);
  unsaved.hold("one", []);
  unsaved.hold("two", []);
  assert.deepEqual(unsaved.read(), []);
  stop();
  unsaved.hold("one", [{ path: "x", value: 1 }]);
  unsaved.hold("one", []);
  assert.equal(told, 4);
});
