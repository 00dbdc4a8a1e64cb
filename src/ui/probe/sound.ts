"use client";
/** Tone and speech: the eyes stay on the chassis. Both by the browser's own means; speech is off until it is asked for. */

import { useCallback, useEffect, useRef, useState } from "react";
import { toneOf } from "@/core/walk/spoken";
import type { Verdict } from "@/core/expectation/expectation";

export interface Sound {
  tone: boolean;
  speech: boolean;
  /** False where this browser has no voice. */
  canSpeak: boolean;
  toggleTone(): void;
  toggleSpeech(): void;
  say(verdict: Verdict, sentence: string): void;
}

const KEY = "scutum-probe-sound";

export function useSound(): Sound {
  const [tone, setTone] = useState(true);
  const [speech, setSpeech] = useState(false);
  const [canSpeak, setCanSpeak] = useState(false);
  const context = useRef<AudioContext>(undefined);

  useEffect(() => {
    setCanSpeak("speechSynthesis" in window);
    const kept = (localStorage.getItem(KEY) ?? "tone").split(" ");
    setTone(kept.includes("tone"));
    setSpeech(kept.includes("speech"));
    return () => {
      void context.current?.close();
      window.speechSynthesis?.cancel();
    };
  }, []);

  const keep = (t: boolean, s: boolean) => localStorage.setItem(KEY, [t ? "tone" : "", s ? "speech" : ""].join(" ").trim());
  const say = useCallback(
    (verdict: Verdict, sentence: string) => {
      if (tone) beep((context.current ??= new AudioContext()), verdict);
      if (speech && "speechSynthesis" in window) {
        window.speechSynthesis.cancel();
        window.speechSynthesis.speak(new SpeechSynthesisUtterance(sentence));
      }
    },
    [tone, speech],
  );
  return {
    tone,
    speech,
    canSpeak,
    toggleTone: () => {
      setTone(!tone);
      keep(!tone, speech);
    },
    toggleSpeech: () => {
      setSpeech(!speech);
      keep(tone, !speech);
    },
    say,
  };
}

function beep(context: AudioContext, verdict: Verdict): void {
  const { hertz, beeps, seconds } = toneOf(verdict);
  for (let i = 0; i < beeps; i++) {
    const at = context.currentTime + 0.02 + i * seconds * 1.7;
    const oscillator = new OscillatorNode(context, { frequency: hertz });
    const gain = new GainNode(context, { gain: 0 });
    // A ramp at both ends: a tone that is cut clicks.
    gain.gain.setValueAtTime(0, at);
    gain.gain.linearRampToValueAtTime(0.25, at + 0.01);
    gain.gain.setValueAtTime(0.25, at + seconds - 0.02);
    gain.gain.linearRampToValueAtTime(0, at + seconds);
    oscillator.connect(gain).connect(context.destination);
    oscillator.start(at);
    oscillator.stop(at + seconds);
  }
}
