import { deflateRawSync, crc32 } from "node:zlib";

/** A PDF with a page for each text, whose lines are parted by `\n`: the least that ISO 32000 asks for. */
export function pdf(...pages: string[]): Buffer {
  const objects = ["<</Type/Catalog/Pages 2 0 R>>", "", "<</Type/Font/Subtype/Type1/BaseFont/Helvetica>>"];
  const kids: string[] = [];
  for (const text of pages) {
    const lines = text
      .split("\n")
      .map((line, at) => `1 0 0 1 60 ${780 - 20 * at} Tm (${line.replace(/[()\\]/g, "\\$&")}) Tj`);
    const content = `BT /F 11 Tf ${lines.join(" ")} ET`;
    objects.push(`<</Length ${content.length}>>stream\n${content}\nendstream`);
    objects.push(
      `<</Type/Page/Parent 2 0 R/MediaBox[0 0 595 842]/Contents ${objects.length} 0 R/Resources<</Font<</F 3 0 R>>>>>>`,
    );
    kids.push(`${objects.length} 0 R`);
  }
  objects[1] = `<</Type/Pages/Count ${pages.length}/Kids[${kids.join(" ")}]>>`;
  let file = "%PDF-1.4\n";
  const offsets = objects.map((object, i) => {
    const at = file.length;
    file += `${i + 1} 0 obj${object}\nendobj\n`;
    return at;
  });
  const table = offsets.map((at) => `${String(at).padStart(10, "0")} 00000 n \n`).join("");
  return Buffer.from(
    `${file}xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${table}trailer<</Size ${objects.length + 1}/Root 1 0 R>>` +
      `\nstartxref\n${file.length}\n%%EOF`,
    "latin1",
  );
}

/** Files in a ZIP. */
export function zip(files: [string, Buffer][]): Buffer {
  const parts: Buffer[] = [];
  const directory: Buffer[] = [];
  let at = 0;
  for (const [name, bytes] of files) {
    const packed = deflateRawSync(bytes);
    const path = Buffer.from(name);
    const head = Buffer.alloc(26);
    head.writeUInt16LE(20, 0);
    head.writeUInt16LE(0x0800, 2);
    head.writeUInt16LE(8, 4);
    head.writeUInt32LE(crc32(bytes), 10);
    head.writeUInt32LE(packed.length, 14);
    head.writeUInt32LE(bytes.length, 18);
    head.writeUInt16LE(path.length, 22);
    parts.push(Buffer.from("PK\x03\x04", "latin1"), head, path, packed);
    const place = Buffer.alloc(14);
    place.writeUInt32LE(at, 10);
    directory.push(Buffer.from("PK\x01\x02\x14\x00", "latin1"), head, place, path);
    at += 30 + path.length + packed.length;
  }
  const entries = Buffer.concat(directory);
  const end = Buffer.alloc(18);
  end.writeUInt16LE(files.length, 4);
  end.writeUInt16LE(files.length, 6);
  end.writeUInt32LE(entries.length, 8);
  end.writeUInt32LE(at, 12);
  return Buffer.concat([...parts, entries, Buffer.from("PK\x05\x06", "latin1"), end]);
}
