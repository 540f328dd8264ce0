/** How a message is looked at. */
export interface Looking {
  isDark: boolean;
  hasPictures: boolean;
}

/**
 * The page of a message as it is looked at: with what it says for dark grounds in force, or not; and with what stands in the place of
 * pictures where a mail program shows none.
 */
export function readerPage(page: string, { isDark, hasPictures }: Looking): string {
  const lit = page
    .replaceAll("(prefers-color-scheme:dark)", isDark ? "all" : "not all")
    .replace("<html ", `<html style="color-scheme:${isDark ? "dark" : "light"}" `);
  return hasPictures ? lit : lit.replaceAll(/(<img[^>]*?)\ssrc="[^"]*"/g, "$1");
}

/** A size in bytes as people say it: 4.2 kB. */
export const kilobytes = (bytes: number) => `${(bytes / 1000).toFixed(bytes < 100_000 ? 1 : 0)} kB`;

const subjectShown = 45;

/** A subject as the list of a mail program cuts it on a telephone. */
export const cutSubject = (subject: string) =>
  Array.from(subject).length > subjectShown
    ? `${Array.from(subject).slice(0, subjectShown).join("").trimEnd()}…`
    : subject;

/** The first words of a message, which lists show after the subject. */
export const firstWords = (plain: string) => plain.replace(/\s+/g, " ").trim().slice(0, 90);
