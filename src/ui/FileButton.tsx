import type { ReactNode } from 'react';

interface Props {
  /** What is chosen, or what for: "Choose a CSV file". */
  children: ReactNode;
  accept: string;
  disabled?: boolean;
  className?: string;
  onFile: (file: File) => void;
}

/** A button that asks for a file; the same one may be chosen again after it was changed. */
export function FileButton({ children, accept, disabled = false, className = '', onFile }: Props) {
  return (
    <label
      className={`action outline-offset-2 outline-ultra has-focus-visible:outline-2 has-disabled:opacity-60 ${className}`}
    >
      {children}
      <input
        type="file"
        accept={accept}
        className="sr-only"
        disabled={disabled}
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file) onFile(file);
        }}
      />
    </label>
  );
}
