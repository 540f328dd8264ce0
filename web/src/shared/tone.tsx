import { App, ConfigProvider, theme as antd } from "antd";
import { createContext, useContext, useLayoutEffect, useMemo, useState, type ReactNode } from "react";
import { useReducedMotion } from "./useReducedMotion";

type Tone = "light" | "dark";

const ToneContext = createContext<{ tone: Tone; turn: () => void }>({ tone: "light", turn: () => undefined });

export const useTone = () => useContext(ToneContext);

const palettes = {
  light: {
    accent: "#5b2a55",
    ground: "#fffdf9",
    ink: "#2b2230",
    line: "#cfc6b8",
    rust: "#a03a1e",
    sent: "#2e635b",
    brass: "#7d5317",
  },
  dark: {
    accent: "#cfa3c8",
    ground: "#242025",
    ink: "#ece6ea",
    line: "#544c56",
    rust: "#ea9a7f",
    sent: "#86c4b8",
    brass: "#d3a759",
  },
};

/** Puts our tones over the component library, light or dark: as the system says until the person turns it. */
export function ToneProvider({ children }: { children: ReactNode }) {
  const [tone, setTone] = useState<Tone>(() => {
    const kept = localStorage.getItem("tone");
    return kept === "light" || kept === "dark"
      ? kept
      : matchMedia("(prefers-color-scheme: dark)").matches
        ? "dark"
        : "light";
  });
  const still = useReducedMotion();
  useLayoutEffect(() => {
    document.documentElement.dataset.tone = tone;
  }, [tone]);
  const value = useMemo(
    () => ({
      tone,
      turn: () => {
        const next = tone === "light" ? "dark" : "light";
        localStorage.setItem("tone", next);
        setTone(next);
      },
    }),
    [tone],
  );
  const p = palettes[tone];
  return (
    <ToneContext value={value}>
      <ConfigProvider
        theme={{
          algorithm: tone === "dark" ? antd.darkAlgorithm : antd.defaultAlgorithm,
          token: {
            colorPrimary: p.accent,
            colorInfo: p.accent,
            colorLink: p.accent,
            colorError: p.rust,
            colorSuccess: p.sent,
            colorWarning: p.brass,
            colorWarningBg: "var(--brass-soft)",
            colorWarningBorder: "var(--brass)",
            colorErrorBg: "var(--rust-soft)",
            colorErrorBorder: "var(--rust)",
            colorSuccessBg: "var(--sent-soft)",
            colorSuccessBorder: "var(--sent)",
            colorInfoBg: "var(--accent-soft)",
            colorInfoBorder: "var(--age-2)",
            colorBgContainer: p.ground,
            colorBgElevated: p.ground,
            colorText: p.ink,
            colorTextPlaceholder: tone === "dark" ? "#a79ea8" : "#756b78",
            colorBorder: p.line,
            borderRadius: 3,
            fontFamily: "var(--sans)",
            fontSize: 14,
            controlHeight: 30,
            wireframe: false,
            // The library's lists and dialogs come in by an animation and stay invisible where a style forbids it: it must know.
            motion: !still,
            motionDurationMid: "0.1s",
            motionDurationSlow: "0.12s",
          },
          components: {
            Button: {
              fontWeight: 600,
              primaryShadow: "none",
              defaultShadow: "none",
              primaryColor: tone === "dark" ? "#241522" : "#fffdf9",
            },
            Modal: { titleFontSize: 18 },
          },
        }}
      >
        <App className="app" message={{ top: 52, classNames: { root: "passing" } }}>
          {children}
        </App>
      </ConfigProvider>
    </ToneContext>
  );
}
