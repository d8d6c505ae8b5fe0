export const MOST_BITS = 32;
/** Parts that only pass bits on may be wider. */
export const MOST_WIRES = 256;

/** Where a port stands on the block: `usual` means inputs left, outputs right. */
export const PIN_SIDES = ['usual', 'left', 'right', 'top', 'bottom'] as const;
export type PinSide = (typeof PIN_SIDES)[number];
