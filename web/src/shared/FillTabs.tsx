import { Tabs, type TabsProps } from "antd";
import styles from "./FillTabs.module.css";

/** Tabs whose content takes what height is left, such as a message in its frame. */
export function FillTabs(props: TabsProps) {
  return (
    <Tabs
      {...props}
      className={styles.root}
      classNames={{ header: styles.header, body: styles.body, content: styles.content }}
    />
  );
}
