import { TextInput } from '@mantine/core';

interface PinFieldProps {
  label: string;
  description?: string;
  value: string;
  onChange: (value: string) => void;
  error?: string | undefined;
  /** A code that was handed out is read off a slip, and may be seen. */
  shown?: boolean;
  /** Takes the keyboard as its dialog opens. */
  first?: boolean;
}

/** Digits that are typed: a PIN unseen, a code as it stands on the slip. */
export function PinField({ label, description, value, onChange, error, shown = false, first = false }: PinFieldProps) {
  return (
    <TextInput
      size="lg"
      {...(first ? { 'data-autofocus': true } : {})}
      type={shown ? 'text' : 'password'}
      inputMode="numeric"
      autoComplete={shown ? 'one-time-code' : 'new-password'}
      label={label}
      description={description}
      value={value}
      onChange={(event) => onChange(event.currentTarget.value)}
      error={error}
    />
  );
}
