'use client';

import { createContext, useContext } from 'react';
import { useStore } from 'zustand';
import type { Session } from '@/session/session';
import type { SessionState } from '@/session/state';

const Context = createContext<Session | null>(null);
export const SessionProvider = Context.Provider;

/** The open lesson of the page around. */
export function useSession(): Session {
  const session = useContext(Context);
  if (!session) throw new Error('no open lesson around');
  return session;
}

/** A part of the open lesson's state; the component renders again when it changes. */
export function useSessionState<T>(select: (state: SessionState) => T): T {
  return useStore(useSession().store, select);
}
