/** A point of a picture in pixels from its upper left, or of a plane in millimetres. */
export interface Point2 {
	x: number;
	y: number;
}
