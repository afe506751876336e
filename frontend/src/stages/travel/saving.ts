// Saving what is shown: a table, the drawing as it is, or a picture of it. A drawing that leaves the page takes its colours along.
function save(name: string, type: string, content: BlobPart): void {
  const at = URL.createObjectURL(new Blob([content], { type }));
  Object.assign(document.createElement('a'), { href: at, download: name }).click();
  setTimeout(() => URL.revokeObjectURL(at), 1000);
}

function standingAlone(svg: SVGSVGElement): string {
  const colours = getComputedStyle(document.documentElement);
  return new XMLSerializer()
    .serializeToString(svg)
    .replace(/var\((--[\w-]+)\)/g, (_, name: string) => colours.getPropertyValue(name).trim());
}

export const saveTable = (name: string, rows: string): void => save(name, 'text/csv', rows);
export const saveDrawing = (name: string, svg: SVGSVGElement): void => save(name, 'image/svg+xml', standingAlone(svg));

export function savePicture(name: string, svg: SVGSVGElement): void {
  const image = new Image();
  image.onload = () => {
    const size = { width: image.width * 2, height: image.height * 2 };
    const canvas = Object.assign(document.createElement('canvas'), size);
    canvas.getContext('2d')!.drawImage(image, 0, 0, size.width, size.height);
    canvas.toBlob((blob) => blob && save(name, 'image/png', blob));
  };
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(standingAlone(svg))}`;
}
