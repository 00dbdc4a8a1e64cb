"use client";
/** A file, chosen or dropped on the button: taken at once, with what went wrong in place. */

import { lateInBrowser } from "../frame/late";
import type { Accept } from "react-dropzone";

export const CIRCUIT_FILES: Accept = { "text/plain": [".cir", ".net", ".sp", ".spice", ".txt"] };
export const WAV_FILES: Accept = { "audio/wav": [".wav"], "audio/x-wav": [".wav"] };
export const PHOTO_FILES: Accept = { "image/jpeg": [], "image/png": [], "image/webp": [] };

export interface FileFieldProps {
  label: string;
  accept: Accept;
  /** Takes the file; what it throws is shown. @returns what to say when it is done, if anything. */
  take(file: File): Promise<string | void>;
  /** Said while it is taken. */
  busy?: (name: string) => string;
  /** Of the input, where the button's own text does not name the file. */
  name?: string;
  icon?: React.ReactNode;
  className?: string;
}

const DropFile = lateInBrowser(() => import("./drop-file").then((m) => m.DropFile));

/** What takes dropped files comes after the page; nothing stands there before that could take a file and lose it. */
export const FileField = (props: FileFieldProps) => <DropFile {...props} />;
