/** Texts of sound. */

import { say, type Value } from "../language/language";

// tape/sound-words
export const humMainsFrequency = "hum at the mains frequency";
export const humTwiceMainsFrequency = "hum at twice the mains frequency";
export const buzzCombMainsMultiples = "buzz: many multiples of the mains frequency";
export const squealSteadyTone = "squeal: a steady tone";
export const nothingOutWay = "nothing unusual";
export const speechMusicNobodyPlays = "speech or music from outside";
export const burstsPeaksSignal = "bursts on the peaks of the signal";
export const nothingAllNoSignal = "nothing at all, no signal either";

// sounds
export const recordingHasMsSecond = (rate: Value) => say`the recording has ${rate} ms; a second or more is wanted`;
export const onlyLongSlowThings = (seconds: Value) => say`only ${seconds} s long: slow or rare sounds cannot be judged from it`;
export const clippedTimesRecordLower = (clipped: Value) =>
  say`clipped ${clipped} times: record it at a lower level, since clipping adds harmonics of its own`;
export const zeroOffFullScale = (offset: Value) => say`its zero is off by ${offset} % of full scale`;
export const hzNotHzAnother = (otherMains: Value, mains: Value) =>
  say`this is ${otherMains} Hz, not ${mains} Hz: another mains, a generator, or the wrong figure was given`;
export const silentNothingButZeros = () => say`silent: nothing but zeros; is the right input recorded, and is it turned up`;
export const noiseBurstsMainsArcing = () => say`noise in bursts with the mains: arcing, or a rectifier that switches hard`;
export const toneGrowsWhileListened = () => say`a tone grows during the recording: something is about to oscillate`;
export const somethingLikeSpeechMusic = () => say`something like speech or music is in it: if nothing is played, it is radio breakthrough`;
export const burstsHighFrequencyRide = () =>
  say`bursts of high frequency ride on the peaks: a parasitic oscillation that only signal triggers`;

// spectrum
export const recordingSamplesLeastWanted = (length: Value) => say`a recording of ${length} samples; at least 64 are wanted`;

// wav
export const wavFilePcmBits = () => say`a WAV file with PCM of 8, 16, 24 or 32 bits or floating point`;
export const wanted = (found: Value, expected: Value) => say`${found}; wanted: ${expected}`;
export const imaAdpcm = "IMA ADPCM";
export const mpegAudio = "MPEG audio";
export const windowsMediaAudio = "Windows Media audio";
export const fileEmpty = () => say`the file is empty`;
export const anMp = () => say` (an MP3)`;
export const fileStartsNotRiff = (start: Value, known: Value) => say`the file starts with "${start}"${known} and not with RIFF and WAVE`;
export const formatChunkBytes = (length: Value) => say`a format chunk of ${length} bytes`;
export const samplesBeforeTheirFormat = () => say`samples before their format`;
export const noFormatChunk = () => say`no format chunk in it`;
export const noSamplesEndsAfter = () => say`no samples in it: it ends after its head`;
export const recordingSecondMore = () => say`a recording of a second or more`;
export const kind = (tag: Value) => say`kind ${tag}`;
export const compressedWhatCodecLeaves = (name: Value) => say`compressed as ${name}: compression removes the very noise that is looked for`;
export const uncompressedWav = () => say`an uncompressed WAV`;
export const bitsSample = (bits: Value, float: Value) => say`${bits} bits a sample${float}`;
export const floatingPoint = () => say` of floating point`;
export const channels = (channels: Value) => say`${channels} channels`;
export const samplesSecond = (rate: Value) => say`${rate} samples a second`;
export const samplesSecond2 = () => say`8,000 to 192,000 samples a second`;
export const fileSaysBytesFrame = (align: Value, frame: Value) =>
  say`the file says ${align} bytes a frame; ${frame} is right for its format and was used`;
export const cutShortThere = (there: Value, said: Value) => say`cut short: ${there} s of ${said} s are there`;
export const noSamples = () => say`no samples in it`;
export const minLongFirstMin = (whole: Value, mostSeconds: Value) => say`${whole} min long; the first ${mostSeconds} min were looked at`;
export const samplesWereNoNumbers = (broken: Value) => say`${broken} samples were no numbers and count as silence`;
