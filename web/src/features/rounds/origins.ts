/** Where something in a parcel was taken from, as the server says it: `row 12 due`, `card name`, `slot statement.total`. */
export type Origin =
  { kind: "row"; row: number; field: string } | { kind: "card"; field: string } | { kind: "slot"; field: string };

/** A place on a page or in a message where something stands that was taken from somewhere, in parts of what it stands on. */
export interface Place {
  from: string;
  /** What is read there; empty where it is not known. */
  text: string;
  left: number;
  top: number;
  width: number;
  height: number;
}

const rowFields: Record<string, string> = {
  number: "Number",
  kind: "Kind",
  dated: "Date",
  due: "Due date",
  "days-over": "Due date",
  original: "Amount",
  open: "Outstanding",
  reference: "Reference",
  unit: "Unit",
};

const cardFields: Record<string, string> = {
  name: "Name",
  contact: "Contact",
  address: "Address",
  country: "Country",
};

const extra = "extra:";

/** Reads what the server says; undefined where it is nothing of that kind. */
export function originOf(from: string): Origin | undefined {
  const [kind, ...rest] = from.split(" ");
  if (kind === "row" && rest.length > 1) {
    return { kind, row: Number(rest[0]), field: rest.slice(1).join(" ") };
  }
  return (kind === "card" || kind === "slot") && rest.length > 0 ? { kind, field: rest.join(" ") } : undefined;
}

/** What it is, in words: “Due date, row 12”. */
export function originWords(from: string): string {
  const origin = originOf(from);
  switch (origin?.kind) {
    case "row": {
      const { field, row } = origin;
      const name = field.startsWith(extra) ? field.slice(extra.length) : (rowFields[field] ?? field);
      return `${name}, row ${row}`;
    }
    case "card":
      return `${cardFields[origin.field] ?? origin.field}, on the card`;
    default:
      return "Reckoned";
  }
}

/** Where it is put right. */
export function whereRight(from: string): "ledger" | "card" | "firm" | "account" {
  const origin = originOf(from);
  if (origin?.kind === "row") {
    return "ledger";
  }
  if (origin?.kind === "card") {
    return "card";
  }
  return /^(firm|sender|round)\./.test(origin?.field ?? "") ? "firm" : "account";
}
