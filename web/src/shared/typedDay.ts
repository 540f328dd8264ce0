import dayjs from "dayjs";
import customParseFormat from "dayjs/plugin/customParseFormat";

dayjs.extend(customParseFormat);

const days = [
  "D MMM YYYY",
  "D MMMM YYYY",
  "D/M/YYYY",
  "D/M/YY",
  "D.M.YYYY",
  "D.M.YY",
  "D-M-YYYY",
  "D-M-YY",
  "YYYY-M-D",
];

/** How a day may be typed; the first is how it is shown. */
export const dayForms = ["D MMM YYYY", "DD/MM/YYYY", "DD.MM.YYYY", "YYYY-MM-DD"];

/** How a day with a time of it may be typed; the first is how it is shown. */
export const momentForms = ["D MMM YYYY, HH:mm", "DD/MM/YYYY HH:mm", "DD.MM.YYYY HH:mm", "YYYY-MM-DD HH:mm"];

/**
 * Reads a day as people type it: 31 Oct 2026, 31 october 2026, 31/10/26, 01.02.2026, 2026-10-31; the day stands before the
 * month. Nothing where it is no day of the calendar: 31/02/2026, 10/31/2026, "tomorrow".
 */
export const readDay = (text: string) => read(text, days);

/** Reads a day with a time of it: 2 Nov 2026, 07:30; 2/11/26 7:30. Nothing without the time. */
export const readMoment = (text: string) =>
  read(
    text,
    days.map((d) => `${d} H:mm`),
  );

function read(text: string, forms: string[]): dayjs.Dayjs | undefined {
  const plain = text
    .trim()
    .replace(/[\s,T]+(?=\d?\d:)/, " ")
    .replace(/\s+/g, " ")
    // Each form is met exactly or not at all, so that leading noughts and small letters are taken away first.
    .replace(/(?<![:\d])0+(?=\d)/g, "")
    .replace(/\p{L}+/gu, (word) => word.charAt(0).toUpperCase() + word.slice(1).toLowerCase());
  return forms.map((form) => dayjs(plain, form, "en", true)).find((day) => day.isValid());
}
