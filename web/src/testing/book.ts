import type { Schemas } from "../shared/api/client";

/** The book of the sample firm. */
export const book: Schemas["BookView"] = {
  id: 1,
  name: "Tarnbrook Linen Hire",
  currency: "GBP",
  today: "2026-11-02",
  timeZone: "Europe/London",
  addressLines: [],
  contactLines: [],
  paymentLines: [],
  footLines: [],
  ageLabels: ["current", "1–30", "31–60", "61–90", "over 90"],
  rules: {
    edges: "30, 60, 90",
    by: "due",
    creditsByDate: false,
    form: "open-items",
    settlement: null,
    termsDays: 30,
    levels: [],
    maySkip: false,
    mayRepeat: true,
  },
};
