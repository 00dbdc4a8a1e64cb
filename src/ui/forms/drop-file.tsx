"use client";
/** What FileField is once the page stands: a button that is a place to drop on, and says what came of it. */

import { useState } from "react";
import { useDropzone, type Accept } from "react-dropzone";

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

export function DropFile({ label, accept, take, busy = (name) => `Reading ${name}…`, name, icon, className = "btn" }: FileFieldProps) {
  const [says, setSays] = useState<{ text: string; bad?: true }>();
  async function taken(file: File) {
    setSays({ text: busy(file.name) });
    try {
      const done = await take(file);
      setSays(done ? { text: done } : undefined);
    } catch (error) {
      setSays({ text: `${file.name}: ${(error as Error).message}`, bad: true });
    }
  }
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    // The button opens the dialog: a drop zone that is a button with a field in it confuses screen readers.
    noClick: true,
    noKeyboard: true,
    accept,
    multiple: false,
    // The server and the readers judge by what is in the file; here only the dialog is narrowed.
    validator: () => null,
    onDrop: (accepted, rejected) => {
      const file = accepted[0] ?? rejected[0]?.file;
      if (file) void taken(file);
    },
  });
  return (
    <span {...getRootProps({ role: undefined, tabIndex: undefined })} className="inline-flex max-w-full flex-wrap items-center gap-2">
      <input {...getInputProps({ "aria-label": name ?? label })} style={undefined} className="hidden" />
      <button type="button" className={`${className} ${isDragActive ? "outline-2 outline-primary" : ""}`} onClick={open}>
        {icon} {label}
      </button>
      {says && (
        <span role={says.bad ? "alert" : "status"} className={says.bad ? "max-w-md text-sm text-error" : "soft text-sm"}>
          {says.text}
        </span>
      )}
    </span>
  );
}
