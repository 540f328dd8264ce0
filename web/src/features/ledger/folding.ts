import type { Column } from "./meanings";

// Fewer are not worth a click.
const fewest = 3;

/**
 * The columns that nothing depends on, by their index, where there are enough of them to be folded away. None in a file whose
 * customers stand on lines of their own, which may be anywhere in a row.
 */
export function foldable(view: {
  kind: "ledger" | "customers";
  carriesDown: boolean | null;
  columns: Column[];
}): number[] {
  const isNamed = view.columns.some((c) => c.meaning === "customer-code" || c.meaning === "customer-name");
  if (view.kind === "ledger" && view.carriesDown === true && !isNamed) {
    return [];
  }
  const extra = view.columns.filter(
    (c) => (view.kind === "ledger" ? c.meaning : c.field) === "extra" && c.confidence !== "asked",
  );
  return extra.length < fewest || extra.length === view.columns.length ? [] : extra.map((c) => c.index);
}
