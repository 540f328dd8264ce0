import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Button, Select } from "antd";
import { useRef, useState, type ReactNode } from "react";
import { useBook, useBookId } from "../../shared/useBook";
import { useKeys } from "../../shared/useKeys";
import { customerPart } from "../customers/api";
import { useSamples } from "./useLayouts";
import layoutsStyles from "./layouts.module.css";

/** For which customer of the ledger a layout or wording is looked at, and as what; the longest and the shortest are a key away. */
export function SampleBar({
  customer,
  level,
  onPick,
  onLevel,
  children,
}: {
  customer: string | undefined;
  level: number | null;
  onPick: (customer: string) => void;
  onLevel: (level: number | null) => void;
  children?: ReactNode;
}) {
  const book = useBookId();
  const levels = useBook().data?.rules.levels ?? [];
  const [find, setFind] = useState("");
  const samples = useSamples();
  const found = useQuery({
    queryKey: ["customers", book, "for a preview", find],
    queryFn: () => customerPart(book, { search: find, count: 20 }),
    placeholderData: keepPreviousData,
  });
  const [longest, shortest] = samples.data ?? [];
  const bar = useRef<HTMLDivElement>(null);
  useKeys(
    {
      l: () => longest && onPick(longest.customer),
      s: () => shortest && onPick(shortest.customer),
    },
    true,
    bar,
  );
  return (
    <div ref={bar} className={`${layoutsStyles.layoutLine} below-8`}>
      <Select
        className="width-210"
        size="small"
        aria-label="Customer in the preview"
        popupMatchSelectWidth={false}
        showSearch={{ filterOption: false, onSearch: setFind }}
        value={customer}
        options={(found.data?.customers ?? [])
          .map((c) => ({ value: c.key, label: c.name }))
          .concat(
            (samples.data ?? [])
              .filter((s) => !found.data?.customers.some((c) => c.key === s.customer))
              .map((s) => ({ value: s.customer, label: s.name })),
          )}
        onChange={onPick}
      />
      <Button size="small" onClick={() => longest && onPick(longest.customer)}>
        longest <kbd>L</kbd>
      </Button>
      <Button size="small" onClick={() => shortest && onPick(shortest.customer)}>
        shortest <kbd>S</kbd>
      </Button>
      <Select
        size="small"
        aria-label="Preview as"
        popupMatchSelectWidth={false}
        value={level ?? 0}
        options={[
          { value: 0, label: "statement" },
          ...levels.map((_, i) => ({ value: i + 1, label: `reminder ${i + 1}` })),
        ]}
        onChange={(n: number) => onLevel(n === 0 ? null : n)}
      />
      {children}
    </div>
  );
}
