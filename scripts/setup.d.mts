/** Types of what TypeScript programs use of setup.mjs. */

import type { ChildProcess } from "node:child_process";

export function ensureBuilt(): void;
export function freePort(wanted: number): Promise<number>;
export function startServer(options: { data: string; port: number; quiet?: boolean; host?: string }): Promise<{
  child: ChildProcess;
  address: string;
  ended: Promise<number>;
  failed?: number;
}>;
