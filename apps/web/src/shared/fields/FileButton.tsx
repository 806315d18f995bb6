import { Button, Upload } from 'antd';

interface Props {
  readonly label: string;
  /** Types or extensions, as for a file input. */
  readonly accept: string;
  readonly several?: boolean;
  readonly take: (files: readonly File[]) => void;
}

/** A button for one or several files; the same file can be chosen again. */
export function FileButton({ label, accept, several = false, take }: Props) {
  return (
    <Upload
      accept={accept}
      multiple={several}
      showUploadList={false}
      beforeUpload={(file, files) => {
        // Called for each file; once all are there, they are passed on together.
        if (file === files.at(-1)) take(files);
        return false;
      }}
    >
      <Button>{label}</Button>
    </Upload>
  );
}
