/** Markers in a picture; the package brings no types of its own. */
declare module 'js-aruco2' {
	interface Markers {
		Detector: new (config: { dictionaryName: string; maxHammingDistance?: number }) => {
			detectImage(
				width: number,
				height: number,
				rgba: ArrayLike<number>
			): { id: number; corners: { x: number; y: number }[]; hammingDistance: number }[];
			/** Codes of all markers, a character to a bit. */
			dictionary: { codeList: string[] };
		};
	}
	const parts: { AR: Markers };
	export default parts;
}
