import type { Schemas } from "../../shared/api/client";
import { lines } from "../sign-in/FirmFields";

export type Card = Schemas["CustomerView"];
export type Contact = Schemas["Contact"];

/** A card as its fields hold it. */
export interface CardText {
  name: string;
  contacts: Contact[];
  salutation: string;
  delivery: Card["delivery"];
  postal: string;
  country: string;
  language: string;
  days: number | null;
  from: "document" | "month";
  headOffice: string;
  groups: Card["groups"];
  form: Card["form"];
  unit: string;
  minimum: number | null;
  onHold: boolean;
  ownWording: number | null;
  ownLayout: number | null;
  notes: string;
}

/** A contact of whom nothing is known yet. */
export const nobody: Contact = { name: "", title: "", address: "", role: "to", rounds: [] };

/** A card as its fields show it; one without contacts has an empty one to be filled in. */
export function textOf(c: Card): CardText {
  return {
    name: c.name,
    contacts: c.contacts.length > 0 ? c.contacts : [nobody],
    salutation: c.salutation,
    delivery: c.delivery,
    postal: c.postalLines.join("\n"),
    country: c.country,
    language: c.language,
    days: c.terms?.days ?? null,
    from: c.terms?.fromMonthEnd ? "month" : "document",
    headOffice: c.headOffice,
    groups: c.groups,
    form: c.form,
    unit: c.unit,
    minimum: c.minimumBalance === null ? null : Number(c.minimumBalance),
    onHold: c.onHold,
    ownWording: c.ownWording,
    ownLayout: c.ownLayout,
    notes: c.notes,
  };
}

/** A card as it is stored upon the version that was looked at. */
export function requestOf(
  { postal, days, from, form, minimum, ownWording, ownLayout, ...rest }: CardText,
  version: number,
): Schemas["CustomerRequest"] {
  return {
    ...rest,
    version,
    form: form ?? null,
    postalLines: lines(postal),
    terms: days === null ? null : { days, fromMonthEnd: from === "month" },
    minimumBalance: minimum,
    ownWording: ownWording ?? null,
    ownLayout: ownLayout ?? null,
  };
}
