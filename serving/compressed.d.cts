export function takes(accepted: string, encoding: string): boolean;
export function serveCompressed(folder: string, path: string): void;
