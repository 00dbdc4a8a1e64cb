/** What is used of the package, which brings no types of its own. */
declare module "fs-native-extensions" {
  /** Takes an exclusive lock on an open file, held until it is closed; false when another process has it. @throws where the disk knows no locks. */
  export function tryLock(file: number): boolean;
}
