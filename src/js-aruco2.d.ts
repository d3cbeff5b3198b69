/** Markers in a picture; the package brings no types of its own. */
declare module 'js-aruco2' {
	const AR: {
		Detector: new (config: { dictionaryName: string; maxHammingDistance?: number }) => {
			detectImage(
				width: number,
				height: number,
				rgba: ArrayLike<number>
			): { id: number; corners: { x: number; y: number }[]; hammingDistance: number }[];
			/** How it is seen that a side is an edge; set after a detection too. */
			dictionary: { codeList: string[] };
		};
	};
	const parts: { AR: typeof AR };
	export default parts;
}
