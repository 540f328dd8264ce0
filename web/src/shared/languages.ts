/** The languages in which customers are written to, each by its own name. */
export const languages = [
  { value: "en", label: "English" },
  { value: "de", label: "Deutsch" },
  { value: "fr", label: "français" },
  { value: "es", label: "español" },
  { value: "it", label: "italiano" },
  { value: "nl", label: "Nederlands" },
];
