import { Input, Select } from "antd";
import { SlotText } from "../wordings/SlotText";
import { barCodeWords } from "./partWords";
import type { PartOf } from "./useLayouts";
import layoutsStyles from "./layouts.module.css";

/** What stands under “How to pay” beside the lines: codes for banking apps, telephones and scanners. */
export function PaymentFields({
  part,
  onChange,
}: {
  part: PartOf<"payment">;
  onChange: (part: PartOf<"payment">) => void;
}) {
  return (
    <>
      <p className="quiet">
        The lines stand under Letterhead. With an IBAN, a statement in euro gets a QR code that banking apps fill the
        transfer from.
      </p>
      <label className={layoutsStyles.layoutLine}>
        IBAN
        <Input
          className="grow"
          size="small"
          value={part.iban}
          onChange={(e) => onChange({ ...part, iban: e.target.value })}
        />
      </label>
      <label className={layoutsStyles.layoutLine}>
        BIC
        <Input
          className="grow"
          size="small"
          value={part.bic}
          onChange={(e) => onChange({ ...part, bic: e.target.value })}
        />
      </label>
      <SlotText
        label="Page to pay on"
        html={part.link}
        kind="line"
        isFixed={false}
        onChange={(link) => onChange({ ...part, link })}
      />
      <p className="quiet">
        An address such as https://pay.example/?account= with slots. It stands as a link and as a QR code; empty, there
        is none.
      </p>
      <label className={layoutsStyles.layoutLine}>
        Bar code
        <Select
          className="grow"
          size="small"
          aria-label="Bar code"
          popupMatchSelectWidth={false}
          value={part.barCode}
          options={Object.entries(barCodeWords).map(([value, label]) => ({ value, label }))}
          onChange={(barCode) => onChange({ ...part, barCode })}
        />
      </label>
      {part.barCode !== "none" && (
        <>
          <SlotText
            label="The bar code says"
            html={part.barCodeText}
            kind="line"
            isFixed={false}
            onChange={(barCodeText) => onChange({ ...part, barCodeText })}
          />
          <p className="quiet">Empty, it is the customer code.</p>
        </>
      )}
    </>
  );
}
