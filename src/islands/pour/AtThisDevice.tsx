import { useState } from 'react';
import { readRecording } from '../../core/weighing/serial';
import benchStyles from '../../ui/bench.module.css';
import { chooseScale, hasSerial, letGo, playScale, type SerialState } from '../../ui/serial-scale';

/** A scale plugged into this very device, in place of the house's; a recording plays like one. */
export function AtThisDevice({ serial }: { serial: SerialState }) {
  const [fault, setFault] = useState<string | null>(null);
  const isUsed = serial.is === 'on' || serial.is === 'lost';
  const play = async (file: File | undefined) => {
    const recording = file ? readRecording(await file.text()) : null;
    setFault(
      recording
        ? null
        : 'This is no recording of a scale. Its first line says the setting, as “# 9600 8 N 1”.',
    );
    if (recording) await playScale(recording);
  };
  return (
    <details>
      <summary className="cursor-pointer text-base">
        {isUsed ? 'The scale at this device' : 'Another scale than the house’s'}
      </summary>
      <div className="mt-2 grid gap-2">
        {serial.words !== '' && <p role="status">{serial.words}</p>}
        {fault !== null && (
          <p role="alert" className={benchStyles.benchNote}>
            {fault}
          </p>
        )}
        <div className="flex flex-wrap gap-2">
          {hasSerial() ? (
            <button
              type="button"
              className={benchStyles.benchAction}
              disabled={serial.is === 'looking'}
              onClick={() => void chooseScale()}
            >
              Choose the scale plugged in here
            </button>
          ) : (
            <p className="text-soft">
              This browser cannot speak to a scale that is plugged into this device.
            </p>
          )}
          {isUsed && (
            <button type="button" className={benchStyles.benchAction} onClick={() => void letGo()}>
              Back to the house’s scale
            </button>
          )}
          <label className={benchStyles.benchAction}>
            Play a recording
            <input
              type="file"
              accept=".txt,text/plain"
              className="sr-only"
              onChange={(event) => void play(event.target.files?.[0])}
            />
          </label>
        </div>
      </div>
    </details>
  );
}
