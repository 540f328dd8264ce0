import { ConfigProvider } from "antd";
import type { ReactNode } from "react";

/** Fields that stand close below each other. */
export function Dense({ children }: { children: ReactNode }) {
  return <ConfigProvider theme={{ components: { Form: { itemMarginBottom: 10 } } }}>{children}</ConfigProvider>;
}
