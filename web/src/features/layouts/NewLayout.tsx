import { useQuery } from "@tanstack/react-query";
import { App, Select } from "antd";

import { languages } from "../../shared/languages";
import { useBookId } from "../../shared/useBook";
import { useLayoutActions, type Layout } from "./useLayouts";
import styles from "./NewLayout.module.css";
import { readyMadeLayouts } from "./api";

/** Begins a layout from a ready-made one. */
export function NewLayout({ onMade }: { onMade: (id: number) => void }) {
  const book = useBookId();
  const { add } = useLayoutActions();
  const { message } = App.useApp();
  const made = useQuery({
    queryKey: ["ready-made", book],
    queryFn: () => readyMadeLayouts(book),
    staleTime: Infinity,
  });
  return (
    <Select
      size="small"
      aria-label="Start from"
      placeholder="Start from…"
      className={styles.picker}
      popupMatchSelectWidth={false}
      loading={made.isPending || add.isPending}
      value={null}
      options={languages
        .map((language) => ({
          label: language.label,
          options: (made.data ?? [])
            .map((m, at) => ({ value: at, label: m.layout.name, language: m.language }))
            .filter((m) => m.language === language.value),
        }))
        .filter((group) => group.options.length > 0)}
      onChange={(at: number | null) => {
        const layout = at === null ? undefined : made.data?.[at]?.layout;
        if (layout) {
          add.mutate(layout as Layout, {
            onSuccess: (l) => onMade(l.id),
            onError: (e) => void message.error(e.message),
          });
        }
      }}
    />
  );
}
