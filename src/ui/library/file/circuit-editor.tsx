"use client";
/** The text of a circuit file in an editor: numbers, colours, folding, search, completion, undo, what is wrong at its place. */

import { useEffect, useImperativeHandle, useRef, type Ref } from "react";
import { autocompletion, completionKeymap } from "@codemirror/autocomplete";
import { defaultKeymap, history, historyKeymap } from "@codemirror/commands";
import { foldGutter, foldKeymap } from "@codemirror/language";
import { lintGutter, setDiagnostics, type Diagnostic } from "@codemirror/lint";
import { highlightSelectionMatches, search, searchKeymap } from "@codemirror/search";
import { Annotation, EditorState, Transaction } from "@codemirror/state";
import { drawSelection, EditorView, highlightActiveLine, keymap, lineNumbers } from "@codemirror/view";
import type { ReadResult } from "@/core/circuit/read";
import { circuitLanguage, completionsFor } from "./circuit-language";

export interface EditorHandle {
  /** Brings a line into sight and selects it; the cursor comes along unless `focus` is false. */
  goTo(line: number, focus?: boolean): void;
}

interface CircuitEditorProps {
  text: string;
  setText(text: string): void;
  read: ReadResult;
  /** Told the line (1-based) that somebody puts the cursor on. */
  onLine?(line: number): void;
  tall?: boolean;
  ref?: Ref<EditorHandle>;
}

/** Set on changes that come from outside: they are not told back. */
const fromOutside = Annotation.define<boolean>();

const look = EditorView.theme({
  "&": { height: "100%", fontSize: "0.95rem", backgroundColor: "transparent" },
  "&.cm-focused": { outline: "2px solid var(--color-primary)", outlineOffset: "-2px" },
  ".cm-scroller": { fontFamily: "var(--font-mono)", lineHeight: "1.4rem" },
  ".cm-content": { caretColor: "var(--color-base-content)" },
  ".cm-cursor": { borderLeftColor: "var(--color-base-content)" },
  ".cm-gutters": { backgroundColor: "transparent", color: "var(--soft)", borderRight: "1px solid var(--color-base-300)" },
  ".cm-activeLine": { backgroundColor: "color-mix(in srgb, var(--color-base-300) 35%, transparent)" },
  "&.cm-focused > .cm-scroller > .cm-selectionLayer .cm-selectionBackground, .cm-selectionBackground": {
    backgroundColor: "color-mix(in srgb, var(--color-primary) 35%, transparent)",
  },
  ".cm-tooltip, .cm-panels": {
    backgroundColor: "var(--color-base-200)",
    color: "var(--color-base-content)",
    border: "1px solid var(--color-base-300)",
  },
  ".cm-tooltip-autocomplete ul li[aria-selected]": { backgroundColor: "var(--color-secondary)", color: "var(--color-secondary-content)" },
  // The shapes of the house in place of the package's pictures; red is for LIVE alone.
  ".cm-lint-marker": { width: "1em", height: "1.4rem", lineHeight: "1.4rem" },
  ".cm-lint-marker-error, .cm-lint-marker-warning": { content: "normal" },
  ".cm-lint-marker-error::before": { content: '"■"', color: "var(--color-error)" },
  ".cm-lint-marker-warning::before": { content: '"▲"', color: "var(--color-warning)" },
  ".cm-lintRange-error": { backgroundImage: "none", textDecoration: "underline wavy var(--color-error)" },
  ".cm-lintRange-warning": { backgroundImage: "none", textDecoration: "underline wavy var(--color-warning)" },
  ".cm-diagnostic": { fontFamily: "var(--font-sans)" },
  ".cm-diagnostic-error": { borderLeftColor: "var(--color-error)" },
  ".cm-diagnostic-warning": { borderLeftColor: "var(--color-warning)" },
  ".cm-foldPlaceholder": { backgroundColor: "var(--color-secondary)", color: "var(--color-secondary-content)", border: "none" },
  ".cm-searchMatch": { backgroundColor: "color-mix(in srgb, var(--color-warning) 40%, transparent)" },
});

export function CircuitEditor({ text, setText, read, onLine, tall, ref }: CircuitEditorProps) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(undefined);
  const latest = useRef({ setText, read, onLine });
  latest.current = { setText, read, onLine };

  useEffect(() => {
    const editor = new EditorView({
      parent: host.current!,
      state: EditorState.create({
        doc: text,
        extensions: [
          lineNumbers(),
          foldGutter(),
          lintGutter(),
          history(),
          drawSelection(),
          highlightActiveLine(),
          highlightSelectionMatches(),
          search({ top: true }),
          circuitLanguage,
          autocompletion({ override: [completionsFor(() => latest.current.read.circuit)], icons: false }),
          keymap.of([...defaultKeymap, ...historyKeymap, ...searchKeymap, ...foldKeymap, ...completionKeymap]),
          look,
          // Its style sheets are let in by the page's own nonce.
          EditorView.cspNonce.of(document.querySelector<HTMLScriptElement>("script[nonce]")?.nonce ?? ""),
          EditorView.contentAttributes.of({ "aria-label": "Circuit file text", spellcheck: "false" }),
          EditorView.updateListener.of((update) => {
            if (update.selectionSet && update.transactions.some((t) => t.isUserEvent("select")))
              latest.current.onLine?.(update.state.doc.lineAt(update.state.selection.main.head).number);
            if (!update.docChanged || update.transactions.some((t) => t.annotation(fromOutside))) return;
            latest.current.setText(update.state.doc.toString());
          }),
        ],
      }),
    });
    view.current = editor;
    return () => editor.destroy();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- made once; what changes later is told to it below
  }, []);

  // What was changed elsewhere, on the drawing or by an undo of the page, goes in as the one piece that differs.
  useEffect(() => {
    const editor = view.current;
    if (!editor) return;
    const now = editor.state.doc.toString();
    if (now === text) return;
    const shorter = Math.min(now.length, text.length);
    let from = 0;
    while (from < shorter && now[from] === text[from]) from++;
    let tail = 0;
    while (tail < shorter - from && now[now.length - 1 - tail] === text[text.length - 1 - tail]) tail++;
    editor.dispatch({
      changes: { from, to: now.length - tail, insert: text.slice(from, text.length - tail) },
      annotations: [fromOutside.of(true), Transaction.addToHistory.of(true)],
    });
  }, [text]);

  useEffect(() => {
    const editor = view.current;
    if (!editor) return;
    const { doc } = editor.state;
    const at = (line: number) => doc.line(Math.min(Math.max(1, line), doc.lines));
    const note =
      (severity: Diagnostic["severity"]) =>
      ({ line, found, expected }: { line: number; found: string; expected: string }): Diagnostic => ({
        from: at(line).from,
        to: at(line).to,
        severity,
        message: `found ${found}; expected ${expected}`,
      });
    editor.dispatch(setDiagnostics(editor.state, [...read.errors.map(note("error")), ...read.warnings.map(note("warning"))]));
  }, [read]);

  useImperativeHandle(ref, () => ({
    goTo(line, focus = true) {
      const editor = view.current;
      if (!editor) return;
      const { from, to } = editor.state.doc.line(Math.min(line, editor.state.doc.lines));
      editor.dispatch({ selection: { anchor: from, head: to }, effects: EditorView.scrollIntoView(from, { y: "center" }) });
      if (focus) editor.focus();
    },
  }));
  return (
    <div
      ref={host}
      className={`overflow-hidden rounded border border-base-300 bg-base-200 ${tall ? "h-[max(28rem,calc(100dvh-22rem))]" : "h-[26rem]"}`}
    />
  );
}
