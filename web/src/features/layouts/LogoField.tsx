import { Checkbox } from "antd";
import { Millimetres } from "./PartFields";
import { PictureButton } from "./PictureButton";
import type { PartOf } from "./useLayouts";
import layoutsStyles from "./layouts.module.css";

/** The logo and what stands beside it. */
export function LogoField({
  part,
  onChange,
}: {
  part: PartOf<"letterhead">;
  onChange: (part: PartOf<"letterhead">) => void;
}) {
  return (
    <>
      <PictureButton label="Logo" picture={part.logo} onTake={(logo) => onChange({ ...part, logo })} />
      {part.logo !== null && (
        <>
          <div className={layoutsStyles.layoutLine}>
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
