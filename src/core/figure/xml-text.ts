/** Characters that XML 1.0 has no place for: controls, lone halves of pairs, two that are none (section 2.2). */
const NOT_IN_XML = /[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu;

/** A text as it stands in an element or an attribute. */
export const xmlText = (text: string): string =>
  text
    .replaceAll(NOT_IN_XML, '\ufffd')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;');
