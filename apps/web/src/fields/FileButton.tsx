interface Props {
  readonly label: string;
  readonly accept: string;
  readonly take: (file: File) => void;
}

/** A button that takes one file; the same file can be taken again. */
export function FileButton({ label, accept, take }: Props) {
  return (
    <label className="plain-button file-button">
      {label}
      <input
        type="file"
        className="hidden-but-read"
        accept={accept}
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          event.target.value = '';
          if (file) take(file);
        }}
      />
    </label>
  );
}
