/** A picture at most as long as this many pixels along its longer side, drawn anew; the picture is closed. */
export function scaled(picture: ImageBitmap, longerSide: number): HTMLCanvasElement {
  const scale = Math.min(1, longerSide / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return canvas;
}
