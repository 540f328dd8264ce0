import { Button, Checkbox } from "antd";
import { FileButton } from "../../shared/FileButton";
import { Millimetres } from "./PartFields";
import type { PartOf } from "./useLayouts";

/** The logo and what stands beside it. */
export function LogoField({
  part,
  onChange,
}: {
  part: PartOf<"letterhead">;
  onChange: (part: PartOf<"letterhead">) => void;
}) {
  const take = async (file: File) => onChange({ ...part, logo: base64(new Uint8Array(await file.arrayBuffer())) });
  return (
    <>
      <div className="layout-line">
        <FileButton label="Logo" accept="image/png,image/jpeg" onTake={take}>
          {part.logo === null ? "Take a logo (PNG, JPEG)…" : "Another logo…"}
        </FileButton>
        {part.logo !== null && (
          <Button size="small" onClick={() => onChange({ ...part, logo: null })}>
            Without logo
          </Button>
        )}
      </div>
      {part.logo !== null && (
        <>
          <div className="layout-line">
            <Millimetres
              label="Height"
              value={part.logoHeight}
              onDone={(logoHeight) => onChange({ ...part, logoHeight })}
            />
          </div>
          <Checkbox checked={part.withName} onChange={(e) => onChange({ ...part, withName: e.target.checked })}>
            The firm’s name beside it
          </Checkbox>
        </>
      )}
      <Checkbox checked={part.withLines} onChange={(e) => onChange({ ...part, withLines: e.target.checked })}>
        Our address and contact lines at the right
      </Checkbox>
    </>
  );
}

function base64(bytes: Uint8Array): string {
  let text = "";
  // In pieces, as a call takes only so many arguments.
  for (let at = 0; at < bytes.length; at += 8192) {
    text += String.fromCharCode(...bytes.subarray(at, at + 8192));
  }
  return btoa(text);
}
