import { useEffect, useEffectEvent } from "react";

/**
 * Calls what a key stands for, as `j` or `Shift+j`, unless the person is typing or a dialog is open; Enter and Space only where they
 * press nothing else.
 */
export function useKeys(keys: Record<string, () => void>, active = true) {
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    const target = event.target as HTMLElement;
    const typing =
      target.isContentEditable ||
      (/^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) && (target as HTMLInputElement).type !== "checkbox");
    const pressing = ["Enter", " "].includes(event.key) && target !== document.body;
    if (
      typing ||
      pressing ||
      event.ctrlKey ||
      event.metaKey ||
      event.altKey ||
      [...document.querySelectorAll('[role="dialog"]')].some((dialog) => dialog.checkVisibility())
    ) {
      return;
    }
    const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
    const action = (event.shiftKey && keys[`Shift+${key}`]) || keys[key];
    if (action) {
      event.preventDefault();
      action();
    }
  });
  useEffect(() => {
    if (!active) {
      return;
    }
    const listener = (event: KeyboardEvent) => onKey(event);
    addEventListener("keydown", listener);
    return () => removeEventListener("keydown", listener);
  }, [active]);
}
