// Before the first paint: the theme that was chosen, or the one of the system.
(() => {
  let chosen = null;
  try {
    chosen = localStorage.getItem('manege-theme');
  } catch {}
  const dark = chosen ? chosen === 'dark' : matchMedia('(prefers-color-scheme: dark)').matches;
  document.documentElement.dataset.theme = dark ? 'dark' : 'light';
})();
