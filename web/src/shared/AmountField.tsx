import { InputNumber, type InputNumberProps } from "antd";
import { readNumber } from "./typedNumber";

/** A number with decimals, read as `readNumber` has it. */
export function AmountField(props: InputNumberProps<number>) {
  // The library reads on from text, which stands for nothing where it is empty; its type knows of numbers only.
  return <InputNumber<number> {...props} parser={readNumber as unknown as (text?: string) => number} />;
}
