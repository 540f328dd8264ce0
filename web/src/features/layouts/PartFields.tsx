import { Checkbox, InputNumber, Select } from "antd";
import { SlotText } from "../wordings/SlotText";
import { ColumnsField } from "./ColumnsField";
import { LogoField } from "./LogoField";
import { PaymentFields } from "./PaymentFields";
import { PictureButton } from "./PictureButton";
import { whenWords } from "../../shared/whenWords";
import { placeWords } from "./partWords";
import type { LayoutList, LayoutPart } from "./useLayouts";
import layoutsStyles from "./layouts.module.css";

/** What can be set about one part. */
export function PartFields({
  part,
  list,
  onChange,
}: {
  part: LayoutPart;
  list: LayoutList;
  onChange: (part: LayoutPart) => void;
}) {
  switch (part.part) {
    case "letterhead":
      return <LogoField part={part} onChange={onChange} />;
    case "address":
      return (
        <>
          <label className={layoutsStyles.layoutLine}>
            Stands
            <Select
              className="grow"
              size="small"
              aria-label="Where the address stands"
              popupMatchSelectWidth={false}
              value={part.place}
              options={Object.entries(placeWords).map(([value, label]) => ({ value, label }))}
              onChange={(place) => onChange({ ...part, place: place })}
            />
          </label>
          {part.place === "free" && (
            <div className={layoutsStyles.layoutLine}>
              <Millimetres label="From the left" value={part.left} onDone={(left) => onChange({ ...part, left })} />
              <Millimetres label="From the top" value={part.top} onDone={(top) => onChange({ ...part, top })} />
            </div>
          )}
          <Checkbox
            checked={part.withReturnLine}
            onChange={(e) => onChange({ ...part, withReturnLine: e.target.checked })}
          >
            Our own address above it, in small type
          </Checkbox>
        </>
      );
    case "title":
      return (
        <>
          <SlotText
            label="Title"
            html={part.text}
            kind="line"
            isFixed={false}
            onChange={(text) => onChange({ ...part, text })}
          />
          <p className="quiet">Empty, it is the usual one in the customer’s language.</p>
        </>
      );
    case "text":
      return (
        <>
          <SlotText
            label="Text"
            kind="document"
            html={part.text}
            isFixed={false}
            onChange={(text) => onChange({ ...part, text })}
          />
          <label className={layoutsStyles.layoutLine}>
            Stands
            <Select
              className="grow"
              size="small"
              aria-label="When the text stands"
              popupMatchSelectWidth={false}
              value={part.when}
              options={Object.entries(whenWords).map(([value, label]) => ({ value, label }))}
              onChange={(when) => onChange({ ...part, when: when })}
            />
          </label>
        </>
      );
    case "slip":
      return (
        <SlotText
          label="Text"
          kind="document"
          html={part.text}
          isFixed={false}
          onChange={(text) => onChange({ ...part, text })}
        />
      );
    case "items":
      return <ColumnsField part={part} list={list} onChange={onChange} />;
    case "payment":
      return <PaymentFields part={part} onChange={onChange} />;
    case "signature":
      return (
        <>
          <PictureButton
            label="Picture of the signature"
            picture={part.picture}
            onTake={(picture) => onChange({ ...part, picture })}
          />
          <div className={layoutsStyles.layoutLine}>
            <Millimetres label="Height" value={part.height} onDone={(height) => onChange({ ...part, height })} />
          </div>
          {part.picture === null && <p className="quiet">Without a picture, room is left to sign by hand.</p>}
        </>
      );
    default:
      return <p className="quiet">There is nothing to set about it.</p>;
  }
}

/** A measure in millimetres. A field that was emptied changes nothing. */
export function Millimetres({
  label,
  value,
  onDone,
}: {
  label: string;
  value: number;
  onDone: (value: number) => void;
}) {
  return (
    <label className={layoutsStyles.layoutMeasure}>
      {label}
      <InputNumber
        className="width-84"
        size="small"
        min={0}
        max={200}
        suffix="mm"
        value={value}
        onChange={(v) => v !== null && onDone(v)}
      />
    </label>
  );
}
