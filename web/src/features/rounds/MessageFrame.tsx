import { useCallback, useEffect, useRef, useState } from "react";
import { PlaceMarks } from "./PlaceMarks";
import type { Place } from "./origins";
import styles from "./MessageFrame.module.css";

/**
 * The message as it will arrive, in a frame that runs nothing and fetches nothing. Its page may be read from here, so that what was taken
 * from somewhere can be pointed at; the marks lie over the frame, which is as high as its page.
 */
export function MessageFrame({ name, html, onPoint }: { name: string; html: string; onPoint: (from: string) => void }) {
  const around = useRef<HTMLDivElement>(null);
  const frame = useRef<HTMLIFrameElement>(null);
  const [height, setHeight] = useState<number>();
  const [places, setPlaces] = useState<Place[]>([]);
  const measure = useCallback(() => {
    const page = frame.current?.contentDocument?.documentElement;
    if (!page || page.clientWidth === 0) {
      // Behind a tab out of sight it has no size; it is measured again when it gets one.
      return;
    }
    setHeight(page.querySelector("body")?.scrollHeight);
    const { clientWidth, scrollHeight } = page;
    setPlaces(
      [...page.querySelectorAll<HTMLElement>("[data-from]")].flatMap((element) => {
        const at = element.getBoundingClientRect();
        return at.width > 0 && element.textContent.trim()
          ? [
              {
                from: element.dataset.from ?? "",
                text: element.textContent.trim(),
                left: at.left / clientWidth,
                top: (at.top + page.scrollTop) / scrollHeight,
                width: at.width / clientWidth,
                height: at.height / scrollHeight,
              },
            ]
          : [];
      }),
    );
  }, []);
  useEffect(() => {
    const watch = new ResizeObserver(measure);
    if (around.current) {
      watch.observe(around.current);
    }
    return () => watch.disconnect();
  }, [measure]);
  return (
    <div ref={around} className={styles.message}>
      <iframe
        ref={frame}
        title={`Message to ${name}`}
        sandbox="allow-same-origin"
        srcDoc={html}
        className="letter-frame"
        style={{ minHeight: height }}
        onLoad={measure}
      />
      <PlaceMarks places={places} onPoint={onPoint} />
    </div>
  );
}
