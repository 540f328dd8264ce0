import { useEffect, useEffectEvent, type RefObject } from "react";

/**
 * Calls what a key stands for, as `j` or `Shift+j`, unless the person is typing or a dialog is open; Enter and Space only where they
 * press nothing else. Where the keys belong to a part of the page, only while that is in view: a tab in the background hears none.
 */
export function useKeys(keys: Record<string, () => void>, active = true, part?: RefObject<HTMLElement | null>) {
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
      part?.current?.checkVisibility() === false ||
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
