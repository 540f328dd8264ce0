import styles from "./PlaceMarks.module.css";
import { originWords, type Place } from "./origins";

/** Lies over a page or a message: what was taken from somewhere can be pointed at, by mouse and by Tab. */
export function PlaceMarks({ places, onPoint }: { places: Place[]; onPoint: (from: string) => void }) {
  const part = (share: number) => `${share * 100}%`;
  return places.map((place, i) => (
    <button
      key={`${i} ${place.from}`}
      type="button"
      className={styles.mark}
      data-mark={place.from}
      style={{
        left: part(place.left),
        top: part(place.top),
        width: part(place.width),
        height: part(place.height),
      }}
      aria-label={place.text ? `${originWords(place.from)}: ${place.text}` : originWords(place.from)}
      title={originWords(place.from)}
      onClick={() => onPoint(place.from)}
    />
  ));
}
