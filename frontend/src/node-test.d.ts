/** The little of Node's test runner that the tests use. */
declare module "node:test" {
  export function test(name: string, work: () => void | Promise<void>): void;
}
declare module "node:assert/strict" {
  const assert: {
    equal(actual: unknown, expected: unknown, words?: string): void;
    deepEqual(actual: unknown, expected: unknown, words?: string): void;
    ok(value: unknown, words?: string): void;
  };
  export default assert;
}
