import { Button, Upload } from 'antd';

interface Props {
  readonly label: string;
  /** Types or endings, as for a file input. */
  readonly accept: string;
  readonly several?: boolean;
  readonly take: (files: readonly File[]) => void;
}

/** A button that takes a file, or several; the same file can be taken again. */
export function FileButton({ label, accept, several = false, take }: Props) {
  return (
    <Upload
      accept={accept}
      multiple={several}
      showUploadList={false}
      beforeUpload={(file, files) => {
        // It is called for each file: once all of them are there, they are taken together.
        if (file === files.at(-1)) take(files);
        return false;
      }}
    >
      <Button>{label}</Button>
    </Upload>
  );
}
