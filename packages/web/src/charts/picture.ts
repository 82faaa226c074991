/** A chart as a picture. */

/** Dots of the picture for each dot of the screen: sharp on paper. */
const sharpness = 2;

/** A PNG of an SVG document, on this ground. Rejects where the browser can't draw it. */
export async function pictureOf(svg: { text: string; width: number; height: number }, ground: string): Promise<Blob> {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg.text)}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = svg.width * sharpness;
  canvas.height = svg.height * sharpness;
  const pen = canvas.getContext('2d');
  if (!pen) throw new Error('no canvas');
  pen.fillStyle = ground;
  pen.fillRect(0, 0, canvas.width, canvas.height);
  pen.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) => canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('no picture'))), 'image/png'));
}
