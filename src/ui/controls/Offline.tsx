'use client';

import { useEffect } from 'react';
import { BASE, pathTo } from '@/loading/base';

/** How long a page has to itself before the rest of the application is fetched, in milliseconds. */
const FIRST_THINGS = 2000;

/** Lets the service worker keep the application for times without a network. */
export function Offline() {
  useEffect(() => {
    if (process.env.NODE_ENV !== 'production' || !('serviceWorker' in navigator)) return;
    const later = setTimeout(() => {
      navigator.serviceWorker
        .register(pathTo('/sw.js'), { scope: BASE || '/' })
        .then((registration) => registration.active?.postMessage('keep-all'))
        .catch(() => {});
    }, FIRST_THINGS);
    return () => clearTimeout(later);
  }, []);
  return null;
}
