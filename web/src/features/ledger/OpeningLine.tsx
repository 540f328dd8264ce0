import { Button, Dropdown, InputNumber, Select } from "antd";
import { useRef } from "react";
import type { Schemas } from "../../shared/api/client";
import styles from "./OpeningLine.module.css";

type Intake = Schemas["IntakeView"];
type Reading = Schemas["ReadingRequest"];

const delimiters = [
  { value: ",", label: "comma" },
  { value: ";", label: "semicolon" },
  { value: "\t", label: "tab" },
  { value: "|", label: "bar" },
];

const encodings = ["utf-8", "windows-1252", "utf-16", "utf-16BE"].map((value) => ({ value, label: value }));

/** How the file was opened, each decision with its reason, to be changed where it is wrong. */
export function OpeningLine({
  view,
  onChange,
  onLoad,
  savedAt,
}: {
  view: Intake;
  onChange?: ((change: (now: Reading) => Reading) => void) | undefined;
  onLoad: (file: File) => void;
  savedAt: string;
}) {
  const input = useRef<HTMLInputElement>(null);
  const o = view.opening;
  const isOpen = onChange !== undefined;
  return (
    <div className={styles.opening}>
      {o.sheet !== null && (
        <label>
          Sheet{" "}
          <Select
            size="small"
            value={o.sheet}
            disabled={!isOpen}
            popupMatchSelectWidth={false}
            aria-label="Sheet"
            options={o.sheets.map((s) => ({ value: s.name, label: s.isHidden ? `${s.name} (hidden)` : s.name }))}
            onChange={(sheet) => onChange?.((now) => ({ ...now, ...fresh, sheet }))}
          />{" "}
          <small>{o.sheetReason}</small>
        </label>
      )}
      {o.delimiter !== null && (
        <label>
          Parted by{" "}
          <Select
            size="small"
            value={o.delimiter}
            disabled={!isOpen}
            popupMatchSelectWidth={false}
            aria-label="Delimiter"
            options={delimiters}
            onChange={(delimiter) => onChange?.((now) => ({ ...now, ...fresh, delimiter }))}
          />{" "}
          <small>{o.delimiterReason}</small>
        </label>
      )}
      {o.encoding !== null && (
        <label>
          Written in{" "}
          <Select
            size="small"
            value={o.encoding}
            disabled={!isOpen}
            popupMatchSelectWidth={false}
            aria-label="Encoding"
            options={encodings}
            onChange={(encoding) => onChange?.((now) => ({ ...now, ...fresh, encoding }))}
          />{" "}
          <small>{o.encodingReason}</small>
        </label>
      )}
      <label>
        Headings in row{" "}
        <InputNumber
          className="width-64"
          size="small"
          min={1}
          max={view.lastRow}
          value={view.headingRow}
          disabled={!isOpen}
          aria-label="Row of the headings"
          changeOnBlur
          onPressEnter={(e) => e.currentTarget.blur()}
          onChange={(row) => row !== view.headingRow && onChange?.((now) => ({ ...now, ...fresh, headingRow: row }))}
        />
      </label>
      {view.carriesDown !== null && (
        <label>
          Customers{" "}
          <Select
            size="small"
            value={view.carriesDown}
            disabled={!isOpen}
            popupMatchSelectWidth={false}
            aria-label="Whether customers are carried down"
            options={[
              { value: true, label: "carried down to the rows below" },
              { value: false, label: "named in each row" },
            ]}
            onChange={(carriesDown) => onChange?.((now) => ({ ...now, carriesDown }))}
          />{" "}
          <small>{view.carryReason}</small>
        </label>
      )}
      <input
        ref={input}
        type="file"
        accept=".json"
        className="visually-hidden"
        tabIndex={-1}
        aria-label="Saved reading"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) {
            onLoad(file);
          }
        }}
      />
      <Dropdown
        trigger={["click"]}
        menu={{
          items: [
            { key: "save", label: "Save this reading as a file", disabled: view.headingRow === null },
            { key: "load", label: "Read by a saved reading…", disabled: !isOpen },
          ],
          onClick: ({ key }) => (key === "save" ? window.location.assign(savedAt) : input.current?.click()),
        }}
      >
        <Button size="small" className="push">
          Reading <span aria-hidden>▾</span>
        </Button>
      </Dropdown>
    </div>
  );
}

// Another sheet, delimiter, encoding or heading row makes other columns: what was decided by their places goes.
const fresh = {
  headingRow: null,
  meanings: {},
  fields: {},
  marks: {},
  orders: {},
  unsignedCredits: {},
  remembered: [],
};
