import { useQuery } from "@tanstack/react-query";
import { App, Select } from "antd";

import { useBookId } from "../../shared/useBook";
import { useClock } from "../../shared/useClock";
import type { Layout } from "./useLayouts";
import { layoutVersion, layoutVersions } from "./api";

/** Earlier versions of a layout, each of which can be taken up again. */
export function Versions({ id, current, onTake }: { id: number; current: number; onTake: (layout: Layout) => void }) {
  const book = useBookId();
  const { moment } = useClock();
  const { message } = App.useApp();
  const versions = useQuery({
    queryKey: ["layouts", book, id, "versions"],
    queryFn: () => layoutVersions(book, id),
  });
  const earlier = (versions.data ?? []).filter((v) => v.version !== current);
  const take = async (version: number) => {
    try {
      const found = await layoutVersion(book, id, version);
      onTake(found.layout as Layout);
    } catch (e) {
      message.error(e instanceof Error ? e.message : "This version cannot be read.");
    }
  };
  return earlier.length === 0 ? null : (
    <Select
      className="width-150"
      size="small"
      aria-label="Earlier versions"
      placeholder="Earlier versions"
      popupMatchSelectWidth={false}
      value={null}
      options={earlier.map((v) => ({ value: v.version, label: `${v.version}: ${v.madeBy}, ${moment(v.madeAt)}` }))}
      onChange={(version: number | null) => version !== null && void take(version)}
    />
  );
}
