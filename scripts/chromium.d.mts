import type { ChildProcess } from 'node:child_process';

export const CHROMIUM: string;
export const FLAGS: readonly string[];
export function served(port: number): Promise<ChildProcess>;
