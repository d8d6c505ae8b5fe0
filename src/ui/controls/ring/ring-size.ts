/** Radii of the ring in pixels: the hub, the parts placed last around it, the families, their parts. */
export const HUB = 18;
export const NEAREST = 52;
export const INNER = 112;
export const OUTER = 204;
