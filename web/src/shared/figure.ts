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

const months = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];

/** An ISO date or time as the trade writes it: "31 Oct 2026". */
export function day(iso: string): string {
  const date = new Date(iso.length === 10 ? `${iso}T12:00:00` : iso);
  return `${date.getDate()} ${months[date.getMonth()] ?? ""} ${date.getFullYear()}`;
}

/** A moment: "2 Nov 2026, 08:14". */
export function moment(iso: string): string {
  return `${day(iso)}, ${new Date(iso).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit", second: "2-digit" })}`;
}

/** "1 parcel", "5 parcels". */
export function count(n: number, one: string, many = `${one}s`): string {
  return `${n.toLocaleString("en-GB")} ${n === 1 ? one : many}`;
}
