import { App, Button } from "antd";
import { FileButton } from "../../shared/FileButton";

/** As high as a drawn logo is made of an SVG: sharp on paper at the largest height that a layout has. */
const drawnHeight = 700;
const drawnWidth = 2100;

/** Takes a picture for a layout, or takes it away. An SVG is drawn once, here, and kept as the PNG that came of it. */
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
      const bytes = file.type === "image/svg+xml" || file.name.endsWith(".svg") ? await drawn(file) : file;
      onTake(base64(new Uint8Array(await bytes.arrayBuffer())));
    } catch (e) {
      message.error(e instanceof Error ? e.message : String(e), 8);
    }
  };
  return (
    <div className="layout-line">
      <FileButton label={label} accept="image/png,image/jpeg,image/svg+xml" onTake={take}>
        {picture === null ? "Take a picture (PNG, JPEG, SVG)…" : "Another picture…"}
      </FileButton>
      {picture !== null && (
        <Button size="small" onClick={() => onTake(null)}>
          Without picture
        </Button>
      )}
    </div>
  );
}

/** An SVG as a PNG. The browser draws it as a picture: no script in it runs, and nothing is fetched. */
async function drawn(file: File): Promise<Blob> {
  const address = URL.createObjectURL(new Blob([await file.arrayBuffer()], { type: "image/svg+xml" }));
  try {
    const image = new Image();
    await new Promise((done, failed) => {
      image.onload = done;
      image.onerror = () => failed(new Error(`${file.name} cannot be drawn: it is damaged, or no SVG picture.`));
      image.src = address;
    });
    const [wide, high] = [image.naturalWidth, image.naturalHeight];
    if (wide === 0 || high === 0) {
      throw new Error(`${file.name} does not say how large it is. Save it with a width and a height.`);
    }
    const scale = Math.min(drawnHeight / high, drawnWidth / wide);
    const canvas = document.createElement("canvas");
    [canvas.width, canvas.height] = [Math.round(wide * scale), Math.round(high * scale)];
    canvas.getContext("2d")?.drawImage(image, 0, 0, canvas.width, canvas.height);
    const png = await new Promise<Blob | null>((done) => canvas.toBlob(done, "image/png"));
    if (!png) {
      throw new Error(`${file.name} cannot be drawn.`);
    }
    return png;
  } finally {
    URL.revokeObjectURL(address);
  }
}

function base64(bytes: Uint8Array): string {
  let text = "";
  // In pieces, as a call takes only so many arguments.
  for (let at = 0; at < bytes.length; at += 8192) {
    text += String.fromCharCode(...bytes.subarray(at, at + 8192));
  }
  return btoa(text);
}
