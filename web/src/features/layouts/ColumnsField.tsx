import { Button, Checkbox, Input, InputNumber, Select } from "antd";
import { OrderButtons } from "./OrderButtons";
import { moved } from "./useDraft";
import type { LayoutList, LayoutPart, PartOf } from "./useLayouts";
import layoutsStyles from "./layouts.module.css";
import styles from "./ColumnsField.module.css";

const extra = "extra:";

/** The columns of the table of items: which, what they are called, how wide, in which order. */
export function ColumnsField({
  part,
  list,
  onChange,
}: {
  part: PartOf<"items">;
  list: LayoutList;
  onChange: (part: PartOf<"items">) => void;
}) {
  const fields = [
    ...list.fields.map((f) => ({ value: f.field, label: f.heading })),
    ...list.columns.map((c) => ({ value: extra + c, label: `${c} (from the file)` })),
  ];
  const headingOf = (field: string) => list.fields.find((f) => f.field === field)?.heading ?? field.replace(extra, "");
  const usual = (list.builtIn.parts as LayoutPart[]).find((p) => p.part === "items")?.columns ?? [];
  const unused = fields.filter((f) => !part.columns.some((c) => c.field === f.value));
  const set = (columns: PartOf<"items">["columns"]) => onChange({ ...part, columns });
  return (
    <>
      <table className={`${styles.layoutColumns} ledger`} aria-label="Columns">
        <thead>
          <tr>
            <th scope="col">Column</th>
            <th scope="col">Heading</th>
            <th scope="col">Width, mm</th>
            <th scope="col">
              <span className="visually-hidden">Order</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {part.columns.map((column, i) => {
            const name = headingOf(column.field);
            return (
              <tr key={column.field}>
                <th scope="row">{name}</th>
                <td>
                  <Input
                    size="small"
                    aria-label={`Heading of ${name}`}
                    placeholder={name}
                    value={column.heading}
                    onChange={(e) =>
                      set(part.columns.map((c, at) => (at === i ? { ...c, heading: e.target.value } : c)))
                    }
                  />
                </td>
                <td>
                  <InputNumber
                    size="small"
                    aria-label={`Width of ${name}`}
                    placeholder="as needed"
                    min={5}
                    max={150}
                    value={column.width}
                    onChange={(width) => set(part.columns.map((c, at) => (at === i ? { ...c, width } : c)))}
                  />
                </td>
                <td>
                  <OrderButtons
                    at={i}
                    count={part.columns.length}
                    names={{
                      up: `${name} further to the left`,
                      down: `${name} further to the right`,
                      away: `Column ${name} away`,
                    }}
                    canGo={part.columns.length > 1}
                    onMove={(by) => set(moved(part.columns, i, by))}
                    onGo={() => set(part.columns.filter((_, at) => at !== i))}
                  />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <Select
        className="width-160"
        size="small"
        aria-label="Add a column"
        placeholder="Add a column"
        popupMatchSelectWidth={false}
        value={null}
        options={unused}
        onChange={(field: string | null) => field && set([...part.columns, { field, heading: "", width: null }])}
      />
      <label className={layoutsStyles.layoutLine}>
        Group by
        <Select
          size="small"
          aria-label="Group by"
          popupMatchSelectWidth={false}
          value={part.groupBy}
          options={[{ value: "", label: "nothing" }, ...fields]}
          onChange={(groupBy: string) => onChange({ ...part, groupBy })}
        />
      </label>
      <Checkbox checked={part.carryForward} onChange={(e) => onChange({ ...part, carryForward: e.target.checked })}>
        Carry the sum over to the next page
      </Checkbox>
      <Button size="small" type="link" className={styles.usual} onClick={() => set(usual)}>
        Reset columns
      </Button>
    </>
  );
}
