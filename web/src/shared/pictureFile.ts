/** As high as a drawn picture is made of an SVG: sharp on paper at the largest height that a layout has. */
const drawnHeight = 700;
const drawnWidth = 2100;

/** A picture file in Base64. An SVG is drawn once, here, and is the PNG that came of it. */
export async function pictureIn(file: File): Promise<string> {
  const bytes = file.type === "image/svg+xml" || file.name.endsWith(".svg") ? await drawn(file) : file;
  return base64(new Uint8Array(await bytes.arrayBuffer()));
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
