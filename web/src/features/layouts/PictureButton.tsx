import { App, Button } from "antd";
import { FileButton } from "../../shared/FileButton";
import { pictureIn } from "../../shared/pictureFile";
import layoutsStyles from "./layouts.module.css";

/** Takes a picture for a layout, or takes it away. */
export function PictureButton({
  label,
  picture,
  onTake,
}: {
  label: string;
  picture: string | null;
  onTake: (picture: string | null) => void;
}) {
  const { message } = App.useApp();
  const take = async (file: File) => {
    try {
      onTake(await pictureIn(file));
    } catch (e) {
      message.error(e instanceof Error ? e.message : String(e), 8);
    }
  };
  return (
    <div className={layoutsStyles.layoutLine}>
      <FileButton label={label} accept="image/png,image/jpeg,image/svg+xml" onTake={take}>
        {picture === null ? "Upload picture (PNG, JPEG, SVG)…" : "Replace picture…"}
      </FileButton>
      {picture !== null && (
        <Button size="small" onClick={() => onTake(null)}>
          Remove picture
        </Button>
      )}
    </div>
  );
}
