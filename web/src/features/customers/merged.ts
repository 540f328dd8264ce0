/** What somebody entered, with what somebody else changed meanwhile in the fields that they left as they were. */
export function merged<T extends object>(entered: T, before: T, now: T): T {
  const keys = Object.keys(entered) as (keyof T)[];
  return Object.fromEntries(keys.map((key) => [key, same(entered[key], before[key]) ? now[key] : entered[key]])) as T;
}

// What a form holds is plain data, and an empty field is undefined or null by its history.
const same = (a: unknown, b: unknown) => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);
