/** What tests written in TypeScript use of it. */
export interface Service {
  stop(): Promise<void>;
  pid(): number;
}
type Tell = (words: string) => void;
export function startWeb(
  root: string,
  port: number,
  url: string,
  dist: string,
  tell: Tell,
  onBegin?: (pid: number) => void,
  host?: string,
): Promise<Service>;
export function startWorker(root: string, url: string, tell: Tell, onBegin?: (pid: number) => void): Service;
