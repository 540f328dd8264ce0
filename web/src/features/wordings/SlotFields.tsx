import { Checkbox, Input, Radio, Select } from "antd";
import { useLayouts } from "../layouts/useLayouts";
import { columnsOf, formatOf, formatWords, type SlotAttributes } from "./slotFormats";
import type { SlotView } from "./slotOptions";
import wordingsStyles from "./wordings.module.css";

/** How one slot is written, and what stands there where it is empty. */
export function SlotFields({
  slot,
  attributes,
  isFixed,
  onChange,
  onRemove,
}: {
  slot: SlotView | undefined;
  attributes: SlotAttributes;
  isFixed: boolean;
  onChange: (changed: Partial<SlotAttributes>) => void;
  onRemove: () => void;
}) {
  const { name, orElse, format, capital } = attributes;
  return (
    <div className="width-240">
      <p className="above-0">{slot?.says ?? "This slot names nothing known."}</p>
      {slot?.example && <p className={wordingsStyles.slotExample}>{slot.example}</p>}
      {slot && slot.formats.length > 0 && (
        <Radio.Group
          className="below-8"
          aria-label="Written as"
          disabled={isFixed}
          value={format}
          onChange={(e) => onChange({ format: e.target.value as string })}
          options={[
            { value: "", label: slot.example || "the usual way" },
            ...slot.formats.map((f) => ({ value: f.format, label: f.example || formatWords(name, f.format) })),
          ]}
        />
      )}
      {name === "statement.table" && <TableColumns format={format} isFixed={isFixed} onChange={onChange} />}
      {name === "payment.button" && (
        <label>
          Words on the button
          <Input
            value={format}
            disabled={isFixed}
            placeholder="Pay online, in the customer’s language"
            onChange={(e) => onChange({ format: e.target.value })}
          />
        </label>
      )}
      {!slot?.isHtml && (
        <>
          <Checkbox
            className="below-8"
            checked={capital}
            disabled={isFixed}
            onChange={(e) => onChange({ capital: e.target.checked })}
          >
            First letter large
          </Checkbox>
          <label>
            Or else, where it is empty
            <Input
              value={orElse}
              disabled={isFixed}
              placeholder="nothing: the parcel waits for you"
              onChange={(e) => onChange({ orElse: e.target.value })}
            />
          </label>
        </>
      )}
      {!isFixed && (
        <button type="button" className="link above-8" onClick={onRemove}>
          Remove slot
        </button>
      )}
    </div>
  );
}

/** The columns of the table of items in this message; none for those of the layout. */
function TableColumns({
  format,
  isFixed,
  onChange,
}: {
  format: string;
  isFixed: boolean;
  onChange: (changed: Partial<SlotAttributes>) => void;
}) {
  const layouts = useLayouts();
  return (
    <label>
      Columns, in their order
      <Select
        className="whole-width"
        mode="multiple"
        aria-label="Columns of the table"
        placeholder="as in the layout"
        disabled={isFixed}
        value={columnsOf(format)}
        options={[
          ...(layouts.data?.fields ?? []).map((f) => ({ value: f.field, label: f.heading })),
          ...(layouts.data?.columns ?? []).map((c) => ({ value: `extra:${c}`, label: c })),
        ]}
        onChange={(columns: string[]) => onChange({ format: formatOf(columns) })}
      />
    </label>
  );
}
