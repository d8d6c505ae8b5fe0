// Before everything else: what may become a script, the theme, and the nonce for styles.
(() => {
  const { nonce, src } = document.currentScript;
  // The path under which the application is served.
  const base = new URL(src).pathname.replace(/\/theme\.js$/, '');
  // Libraries that put styles into the page look here for it.
  window.__webpack_nonce__ = nonce;
  // Only built files and workers of this server become scripts, and no text becomes code. React makes a script by the one
  // text that is allowed, and a chart is emptied by an empty one.
  const mayRun = (url) => {
    const { origin, pathname, protocol } = new URL(url, location.href);
    return (
      origin === location.origin &&
      (protocol === 'blob:' ||
        pathname.startsWith(`${base}/_next/static/`) ||
        pathname === `${base}/sw.js` ||
        pathname === `${base}/theme.js`)
    );
  };
  const refuse = (what) => {
    throw new TypeError(`this page does not allow ${what}`);
  };
  window.trustedTypes?.createPolicy('default', {
    createScriptURL: (url) => (mayRun(url) ? url : refuse('a script from elsewhere')),
    createHTML: (html) => (html === '' || html === '<script></script>' ? html : refuse('HTML from text')),
    createScript: () => refuse('code from text'),
  });
  const system = matchMedia('(prefers-color-scheme: dark)');
  // As chosen here, else as the system has it, also when that goes over to the other at dusk.
  const follow = () => {
    let chosen = null;
    try {
      chosen = localStorage.getItem('manege-theme');
    } catch {}
    document.documentElement.dataset.theme = chosen ?? (system.matches ? 'dark' : 'light');
  };
  follow();
  system.addEventListener('change', follow);
})();
