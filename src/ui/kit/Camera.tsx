'use client';

import {
  BarcodeFormat,
  BinaryBitmap,
  DecodeHintType,
  HTMLCanvasElementLuminanceSource,
  HybridBinarizer,
  MultiFormatReader,
} from '@zxing/library';
import { useEffect, useRef, useState } from 'react';

/** A code that stays before the camera counts once; it has to be away for so long, in ms, before it counts again. */
const AWAY = 1500;
const EACH = 150;

const HINTS = new Map<DecodeHintType, unknown>([
  [
    DecodeHintType.POSSIBLE_FORMATS,
    [
      BarcodeFormat.EAN_13,
      BarcodeFormat.EAN_8,
      BarcodeFormat.UPC_A,
      BarcodeFormat.CODE_128,
      BarcodeFormat.CODE_39,
      BarcodeFormat.ITF,
      BarcodeFormat.QR_CODE,
      BarcodeFormat.DATA_MATRIX,
    ],
  ],
  [DecodeHintType.TRY_HARDER, true],
  // FNC1 is told as scanners tell it, so that GS1 elements are read.
  [DecodeHintType.ASSUME_GS1, true],
]);

/** Why there is no picture, as the browser says it. */
const FAULTS: Readonly<Record<string, string>> = {
  NotAllowedError: 'Camera access is blocked. Allow it for this page in the browser, or type the code.',
  NotFoundError: 'There is no camera on this device. Type the code, or use a scanner.',
  NotReadableError: 'Another program is using the camera. Close it and try again.',
};
const NO_CAMERA = 'The browser allows the camera only on an https address. Type the code, or use a scanner.';

/** The code in what a video shows now; undefined where none is to be read. */
function codeIn(video: HTMLVideoElement, canvas: HTMLCanvasElement, reader: MultiFormatReader): string | undefined {
  if (video.videoWidth === 0) return undefined;
  canvas.width = video.videoWidth;
  canvas.height = video.videoHeight;
  canvas.getContext('2d', { willReadFrequently: true })?.drawImage(video, 0, 0);
  try {
    const picture = new BinaryBitmap(new HybridBinarizer(new HTMLCanvasElementLuminanceSource(canvas)));
    return reader.decodeWithState(picture).getText();
  } catch {
    // The decoder throws for every picture that has no code in it.
    return undefined;
  }
}

/** Reads barcodes from the camera of a phone. */
export default function Camera({ onCode }: { onCode: (code: string) => void }) {
  const video = useRef<HTMLVideoElement>(null);
  const [fault, setFault] = useState<string>();
  const tell = useRef(onCode);
  useEffect(() => {
    tell.current = onCode;
  });
  useEffect(() => {
    const element = video.current;
    const reader = new MultiFormatReader();
    reader.setHints(HINTS);
    const canvas = document.createElement('canvas');
    let [stream, timer]: [MediaStream | undefined, ReturnType<typeof setInterval> | undefined] = [undefined, undefined];
    let gone = false;
    let last = { code: '', at: 0 };
    const look = () => {
      const code = element === null ? undefined : codeIn(element, canvas, reader);
      if (code === undefined) return;
      const at = performance.now();
      const held = code === last.code && at - last.at < AWAY;
      last = { code, at };
      if (!held) tell.current(code);
    };
    const stop = () => {
      clearInterval(timer);
      stream?.getTracks().forEach((track) => track.stop());
    };
    const start = async () => {
      if ((navigator.mediaDevices as MediaDevices | undefined) === undefined) return setFault(NO_CAMERA);
      try {
        stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: { ideal: 'environment' } } });
        if (gone || element === null) return stop();
        element.srcObject = stream;
        await element.play();
        timer = setInterval(look, EACH);
      } catch (error) {
        if (!gone) setFault(FAULTS[(error as { name?: string }).name ?? ''] ?? NO_CAMERA);
      }
    };
    void start();
    return () => {
      gone = true;
      stop();
    };
  }, []);
  return fault === undefined ? (
    <video
      ref={video}
      muted
      playsInline
      aria-label="Camera view"
      className="mt-2 max-h-[240px] w-full rounded-lg border border-line bg-ink object-cover"
    />
  ) : (
    <p role="alert" className="mt-2 rounded-lg border border-line bg-glaze-2 px-3 py-2">
      {fault}
    </p>
  );
}
