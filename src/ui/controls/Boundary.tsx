'use client';

import { Component, type ErrorInfo, type ReactNode } from 'react';

interface Props {
  readonly children: ReactNode;
  /** Stands in place of a failed component. @param retry shows the children again. */
  readonly fallback: (error: Error, retry: () => void) => ReactNode;
}

/** Keeps a failure while something is shown from taking the rest of the page down. */
export class Boundary extends Component<Props, { readonly error: Error | null }> {
  override state = { error: null as Error | null };

  static getDerivedStateFromError(error: unknown) {
    return { error: error instanceof Error ? error : new Error(String(error)) };
  }

  override componentDidCatch(error: Error, info: ErrorInfo): void {
    console.error(error, info.componentStack);
  }

  override render(): ReactNode {
    const { error } = this.state;
    if (!error) return this.props.children;
    return this.props.fallback(error, () => this.setState({ error: null }));
  }
}
