'use client';

import { useEffect } from 'react';

/** Lets the service worker keep the application for times without a network. */
export function Offline() {
  useEffect(() => {
    if (process.env.NODE_ENV !== 'production' || !('serviceWorker' in navigator)) return;
    navigator.serviceWorker
      .register('/sw.js')
      .then((registration) => registration.active?.postMessage('keep-all'))
      .catch(() => {});
  }, []);
  return null;
}
