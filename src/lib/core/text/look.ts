/** How a browser shows the pages; `glare` has the highest contrast, for bright sun. */
export const themes = ['light', 'dark', 'glare', 'system'] as const;
export type Theme = (typeof themes)[number];

/** The hands that work a device: with wet or gloved ones everything to touch is larger, and numbers come on a pad. */
export const handKinds = ['clean', 'dirty'] as const;
export type Hands = (typeof handKinds)[number];
