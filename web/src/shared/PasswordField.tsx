import { Input, type InputProps } from "antd";
import styles from "./PasswordField.module.css";

/** A password, shown while the eye beside it is pressed in. */
export function PasswordField(props: InputProps) {
  return <Input.Password {...props} classNames={{ suffix: styles.eye }} />;
}
