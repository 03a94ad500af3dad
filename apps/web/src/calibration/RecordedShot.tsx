import { Button, FileButton, Stack, Text } from '@mantine/core';
import { traceOfRecording, type MassTrace, type RecordingFault } from '@tempera/core/capture';
import { parse } from 'csv-parse/browser/esm/sync';
import { useState } from 'react';

const faultWord: Record<RecordingFault | 'noShot' | 'unreadable', string> = {
  noSamples: 'This file holds no samples. It wants two columns: time_s and mass_g.',
  noMass: 'Its numbers cannot be read. It wants two columns: time_s and mass_g, with a point for the decimal.',
  timeRunsBack: 'Its time runs back. Record the shot again, or type its numbers.',
  tooLong: 'It is longer than a shot. Cut it to one shot, beginning with the pump.',
  noShot: 'It shows no shot: nothing, or next to nothing, fell into the cup.',
  unreadable: 'This is no table of commas and lines. Choose another file.',
};

/** The samples of a recorded shot (CSV with a header line: time_s, mass_g). */
function samplesOf(text: string) {
  const rows = parse(text, { columns: true, skip_empty_lines: true, trim: true, relax_column_count: true });
  return (rows as Record<string, string | undefined>[]).map((row) => ({
    timeS: Number(row['time_s'] ?? Number.NaN),
    massG: row['mass_g'] ? Number(row['mass_g']) : Number.NaN,
  }));
}

function leftOutWord(lines: number): string | null {
  if (lines === 0) return null;
  return lines === 1
    ? 'Kept. 1 line could not be read and was left out.'
    : `Kept. ${lines} lines could not be read and were left out.`;
}

/** A shot that was recorded elsewhere, read from its file. */
export function RecordedShot({ ready, onRecording }: { ready: boolean; onRecording: (trace: MassTrace) => boolean }) {
  const [says, setSays] = useState<string | null>(null);
  const open = async (file: File | null): Promise<void> => {
    if (!file) return;
    try {
      const recording = traceOfRecording(samplesOf(await file.text()));
      if (!recording.ok) setSays(faultWord[recording.fault]);
      else if (!onRecording(recording.trace)) setSays(faultWord.noShot);
      else setSays(leftOutWord(recording.lostLines));
    } catch {
      setSays(faultWord.unreadable);
    }
  };
  return (
    <Stack gap="xs">
      <FileButton accept=".csv,text/csv" onChange={(file) => void open(file)}>
        {(props) => (
          <Button {...props} size="lg" disabled={!ready}>
            Open a recorded shot
          </Button>
        )}
      </FileButton>
      {!ready && <Text className="faint">Weigh its dose first.</Text>}
      {says && <Text role="alert">{says}</Text>}
    </Stack>
  );
}
