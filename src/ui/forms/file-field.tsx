"use client";
/** A file, chosen or dropped on the button: taken at once, with what went wrong in place. */

import { lateInBrowser } from "./late";
import type { Accept } from "react-dropzone";
import type { FileFieldProps } from "./drop-file";

export const CIRCUIT_FILES: Accept = { "text/plain": [".cir", ".net", ".sp", ".spice", ".txt"] };
export const WAV_FILES: Accept = { "audio/wav": [".wav"], "audio/x-wav": [".wav"] };
export const PHOTO_FILES: Accept = { "image/jpeg": [], "image/png": [], "image/webp": [] };

const DropFile = lateInBrowser(() => import("./drop-file").then((m) => m.DropFile));

/** What takes dropped files comes after the page; nothing stands there before that could take a file and lose it. */
export const FileField = (props: FileFieldProps) => <DropFile {...props} />;
