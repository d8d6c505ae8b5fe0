/** A hint on an element: shown in a tooltip while it is pointed at or has the focus, and read out as its description. */
export const hint = (text: string | false | undefined) =>
  text ? { 'data-hint': text, 'aria-description': text } : {};
