import type { Card } from "./cardText";

/** The card of the Anchor Hotel, upon its version 4. */
export const anchor: Card = {
  key: "AN01",
  version: 4,
  name: "Anchor Hotel",
  contacts: [{ name: "Kell Aske", title: "Mr", address: "kell@anchor.example", role: "to", rounds: [] }],
  salutation: "",
  opening: "Dear Mr Aske,",
  delivery: "email",
  postalLines: ["1 Quay Street", "Tarnbrook"],
  country: "",
  language: "en",
  terms: { days: 14, fromMonthEnd: false },
  headOffice: "",
  groups: "branches",
  form: null,
  unit: "North laundry",
  minimumBalance: "25.00",
  onHold: false,
  ownWording: null,
  ownLayout: null,
  notes: "",
  extra: {},
  fromLedger: false,
  badAddresses: [],
  branches: [],
};
