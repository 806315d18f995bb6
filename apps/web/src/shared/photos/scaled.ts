/** A picture redrawn at most this many pixels long; closes the original. */
export function scaled(picture: ImageBitmap, longerSide: number): HTMLCanvasElement {
  const scale = Math.min(1, longerSide / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return canvas;
}
