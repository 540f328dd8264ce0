import { Zip, ZipPassThrough } from "fflate";

// Small enough to be held by a browser, and to be sent anew after the line was cut.
const mostBytes = 48_000_000;
const mostFiles = 2_000;

/** A file to be uploaded, or several in a ZIP. */
export interface Batch {
  name: string;
  /** What tells it from another one of that name and size. */
  mark: string;
  files: File[];
}

/** The path of a file within the folder that was picked; its name where it was picked alone. */
export const pathOf = (file: File) => file.webkitRelativePath || file.name;

/**
 * Puts files together so that thousands of them do not take as many requests: a file alone goes as it is, several in a ZIP that only
 * holds them together.
 */
export function batches(files: File[]): Batch[] {
  const made: File[][] = [];
  let last: File[] = [];
  let bytes = 0;
  for (const file of files) {
    if (last.length === 0 || last.length === mostFiles || bytes + file.size > mostBytes) {
      last = [];
      made.push(last);
      bytes = 0;
    }
    last.push(file);
    bytes += file.size;
  }
  return made.map((together) => ({
    name: nameOf(together),
    mark: `${together.length} ${Math.max(...together.map((f) => f.lastModified))}`,
    files: together,
  }));
}

function nameOf([first, ...others]: File[]): string {
  return others.length === 0
    ? (first?.name ?? "")
    : `${(first ? pathOf(first) : "").slice(-200)} and ${others.length} more.zip`;
}

/** What is sent of a batch. The same files give the same bytes, so that it can be gone on with. */
export async function packed({ files }: Batch): Promise<Blob> {
  const [only, ...others] = files;
  if (only && others.length === 0) {
    return only;
  }
  const parts: Uint8Array<ArrayBuffer>[] = [];
  const zip = new Zip((error, part) => {
    // It only holds files together, and tells of no error that is not one of ours.
    if (error) {
      throw error;
    }
    parts.push(new Uint8Array(part));
  });
  for (const file of files) {
    const entry = new ZipPassThrough(pathOf(file));
    // The earliest and the latest day that the format knows.
    entry.mtime = Math.min(Math.max(file.lastModified, Date.UTC(1980, 0, 2)), Date.UTC(2099, 0, 1));
    zip.add(entry);
    entry.push(new Uint8Array(await file.arrayBuffer()), true);
  }
  zip.end();
  return new Blob(parts);
}
