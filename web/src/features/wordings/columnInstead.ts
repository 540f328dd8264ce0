const named = ["data-slot", "data-choice", "data-of"];

/** The elements of a text that name a column. */
const naming = (page: Document, heading: string) =>
  named.flatMap((attribute) =>
    [...page.querySelectorAll(`[${attribute}]`)]
      .filter((element) => element.getAttribute(attribute) === `column.${heading}`)
      .map((element) => ({ element, attribute })),
  );

/** Whether a text uses a column in any way. */
export const uses = (html: string, heading: string) =>
  naming(new DOMParser().parseFromString(html, "text/html"), heading).length > 0;

/** A subject or a body with another column in the place of one, wherever it is filled, asked for, or a word is chosen by it. */
export function columnInstead(html: string, heading: string, instead: string): string {
  const page = new DOMParser().parseFromString(html, "text/html");
  for (const { element, attribute } of naming(page, heading)) {
    element.setAttribute(attribute, `column.${instead}`);
  }
  return page.body.innerHTML;
}
