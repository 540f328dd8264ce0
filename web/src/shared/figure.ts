/**
 * Writes an amount that the server gave (full stop, fixed decimals) for reading: thousands marks and a true minus.
 * Only the text changes; nothing is reckoned here. "-1240.00" gives "−1,240.00".
 */
export function figure(amount: string): string {
  const negative = amount.startsWith("-");
  const [whole = "", part] = (negative ? amount.slice(1) : amount).split(".");
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, ",");
  return (negative ? "\u2212" : "") + (part === undefined ? grouped : `${grouped}.${part}`);
}

const signs: Record<string, string> = { GBP: "£", EUR: "€", USD: "$", JPY: "¥" };

/** The amount with its currency: "£1,240.00", "−£60.00", "CHF 5.00". */
export function money(amount: string, currency: string): string {
  const sign = signs[currency] ?? `${currency}\u00a0`;
  const text = figure(amount);
  return text.startsWith("\u2212") ? `\u2212${sign}${text.slice(1)}` : sign + text;
}

const monthNames = [
  "January",
  "February",
  "March",
  "April",
  "May",
  "June",
  "July",
  "August",
  "September",
  "October",
  "November",
  "December",
];

/** The month of an ISO date: "October 2026"; empty for none. */
export function month(iso: string): string {
  const [year = "", of = ""] = iso.split("-");
  return iso === "" ? "" : `${monthNames[Number(of) - 1] ?? ""} ${Number(year)}`;
}

/** An ISO date as the trade writes it: "31 Oct 2026". */
export function day(iso: string): string {
  const [year = "", monthOf = "", of = ""] = iso.split("-");
  return `${Number(of)} ${monthNames[Number(monthOf) - 1]?.slice(0, 3) ?? ""} ${Number(year)}`;
}

/**
 * The day of a moment in a zone (IANA): of 2026-11-02T23:30:00Z "2 Nov 2026" in Europe/London, "3 Nov 2026" in Europe/Paris.
 * In the browser's zone where none is given.
 */
export function dayOf(iso: string, zone?: string): string {
  const { year, month, day: of } = partsOf(iso, zone);
  return day(`${year}-${month}-${of}`);
}

/** A moment in a zone: "2 Nov 2026, 08:14:05". */
export function moment(iso: string, zone?: string): string {
  const { hour, minute, second } = partsOf(iso, zone);
  return `${dayOf(iso, zone)}, ${hour}:${minute}:${second}`;
}

const clocks = new Map<string | undefined, Intl.DateTimeFormat>();

function partsOf(iso: string, zone: string | undefined) {
  const clock =
    clocks.get(zone) ??
    new Intl.DateTimeFormat("en-GB", {
      timeZone: zone,
      calendar: "gregory",
      hourCycle: "h23",
      year: "numeric",
      month: "2-digit",
      day: "2-digit",
      hour: "2-digit",
      minute: "2-digit",
      second: "2-digit",
    });
  clocks.set(zone, clock);
  const parts = clock.formatToParts(new Date(iso));
  const part = (type: Intl.DateTimeFormatPartTypes) => parts.find((p) => p.type === type)?.value ?? "";
  return {
    year: part("year"),
    month: part("month"),
    day: part("day"),
    hour: part("hour"),
    minute: part("minute"),
    second: part("second"),
  };
}

/** "1 parcel", "5 parcels". */
export function count(n: number, one: string, many = `${one}s`): string {
  return `${n.toLocaleString("en-GB")} ${n === 1 ? one : many}`;
}
