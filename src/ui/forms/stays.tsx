"use client";
/**
 * What is asked for now, kept while somebody types to it: another bench, a reading of the entry line or an answer of the solver changes
 * nothing under the hand. A field belongs to its point until it is logged or left.
 */

import { useEffect, useReducer, useRef, useState, type HTMLAttributes, type ReactNode, type Ref } from "react";
import { isTyped } from "./focus";

type BoxProps = Pick<HTMLAttributes<HTMLElement>, "onInput" | "onBlur" | "onSubmit">;

/**
 * @param wanted what should be asked for. @param name says when it is another one: point and kind.
 * @param turn what the person did to get elsewhere: when it changes, the new one is shown at once.
 * @returns what is shown, and what the element around its fields is given.
 */
export function useStays<T, E extends HTMLElement = HTMLElement>(wanted: T, name: string, turn?: unknown): [T, BoxProps & { ref: Ref<E> }] {
  const [shown, setShown] = useState({ name, turn });
  /** The last one of that name. */
  const kept = useRef(wanted);
  const [, lookAgain] = useReducer((n: number) => n + 1, 0);
  const box = useRef<E>(null);
  /** The field that was typed in last, and whether what was typed was taken. */
  const typing = useRef<HTMLInputElement>(null);
  const taken = useRef(false);
  const standsTyped = () => typing.current?.isConnected === true && typing.current.value !== "";
  const isBusy = () => {
    const at = document.activeElement;
    return standsTyped() || (!taken.current && isTyped(at) && box.current?.contains(at) === true);
  };
  const same = shown.name === name;
  // eslint-disable-next-line react-hooks/exhaustive-deps -- after every rendering: who types where is not known to React
  useEffect(() => {
    if (!same) {
      if (shown.turn === turn && isBusy()) return;
      typing.current = null;
      taken.current = false;
    }
    kept.current = wanted;
    if (!same || shown.turn !== turn) setShown({ name, turn });
  });
  return [
    // A turn of the hand is followed without waiting for the next rendering.
    same || shown.turn !== turn ? wanted : kept.current,
    {
      ref: box,
      onInput(e) {
        if (!isTyped(e.target as Element)) return;
        typing.current = e.target as HTMLInputElement;
        taken.current = false;
      },
      // Afterwards: while a field loses the focus nothing has it, and a field that appears then would take it from where it is going.
      onBlur: () => void setTimeout(lookAgain),
      onSubmit() {
        // After the form itself: what it refused still stands in the field.
        setTimeout(() => {
          taken.current = !standsTyped();
          lookAgain();
        });
      },
    },
  ];
}

export interface StaysProps<T> {
  of: T;
  name: string;
  turn?: unknown;
  children(of: T): ReactNode;
}

/** The same around what `children` draw. */
export function Stays<T>({ of, name, turn, children }: StaysProps<T>) {
  const [shown, box] = useStays<T, HTMLDivElement>(of, name, turn);
  return (
    <div className="contents" {...box}>
      {children(shown)}
    </div>
  );
}
