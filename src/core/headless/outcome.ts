/** What a call of the command line comes to. */

export interface Outcome {
  code: number;
  out?: string;
  error?: string;
}
