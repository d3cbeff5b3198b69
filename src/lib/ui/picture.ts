const properties = [
	'fill',
	'fill-opacity',
	'stroke',
	'stroke-width',
	'stroke-dasharray',
	'stroke-linecap',
	'stroke-linejoin',
	'opacity',
	'paint-order',
	'font-family',
	'font-size',
	'font-weight'
] as const;

/** A drawing of the page as a document of its own: what the style sheets say is written into it. */
export function standaloneSvg(drawing: SVGSVGElement): string {
	const copy = drawing.cloneNode(true) as SVGSVGElement;
	const originals = [drawing, ...drawing.querySelectorAll<SVGElement>('*')];
	const copies = [copy, ...copy.querySelectorAll<SVGElement>('*')];
	for (const [index, original] of originals.entries()) {
		const target = copies[index];
		if (!target) continue;
		const style = getComputedStyle(original);
		for (const property of properties) {
			const value = style.getPropertyValue(property);
			if (value) target.setAttribute(property, value);
		}
		target.removeAttribute('class');
		target.removeAttribute('tabindex');
	}
	const { width, height } = drawing.viewBox.baseVal;
	copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
	copy.setAttribute('width', String(width));
	copy.setAttribute('height', String(height));
	return new XMLSerializer().serializeToString(copy);
}

/** A drawing as PNG, on the paper of the page. @throws Error when the browser cannot draw it */
export async function pngOf(svg: string, width: number, height: number, paper: string): Promise<Blob> {
	const image = new Image();
	const address = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }));
	try {
		image.src = address;
		await image.decode();
		const scale = Math.max(1, 2000 / Math.max(width, height));
		const canvas = document.createElement('canvas');
		canvas.width = Math.round(width * scale);
		canvas.height = Math.round(height * scale);
		const context = canvas.getContext('2d');
		if (!context) throw new Error('This browser draws no pictures.');
		context.fillStyle = paper;
		context.fillRect(0, 0, canvas.width, canvas.height);
		context.drawImage(image, 0, 0, canvas.width, canvas.height);
		const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
		if (!blob) throw new Error('The picture could not be made.');
		return blob;
	} finally {
		URL.revokeObjectURL(address);
	}
}

/** Hands a file to the person. */
export function download(name: string, content: Blob): void {
	const address = URL.createObjectURL(content);
	const link = document.createElement('a');
	link.href = address;
	link.download = name;
	link.click();
	setTimeout(() => URL.revokeObjectURL(address), 1000);
}
