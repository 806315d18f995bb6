import { useEffect, useState } from 'react';
import { Button } from 'antd';
import { MOST_PHOTOS, say } from '@water-clock/core';
import { keepPhoto, photoPath, sendWaiting, waitingPhoto } from './photos.ts';
import { FileButton } from '../fields/FileButton.tsx';

const RETRY_MILLISECONDS = 5000;

function Picture({
  id,
  number,
  left,
}: {
  readonly id: string;
  readonly number: number;
  readonly left: number;
}) {
  const [kept, setKept] = useState<string | null>(null);
  const [waiting, setWaiting] = useState<string | null | undefined>(undefined);
  useEffect(() => {
    let over = false;
    let address: string | null = null;
    void waitingPhoto(id).then((photo) => {
      if (over) return;
      address = photo && URL.createObjectURL(photo);
      setWaiting(address);
    });
    return () => {
      over = true;
      // The browser keeps the photo in memory until its URL is revoked.
      if (address) URL.revokeObjectURL(address);
    };
  }, [id, left]);
  if (waiting === undefined) return <span className="photo" />;
  return (
    <img
      className="photo"
      src={waiting ?? kept ?? photoPath(id)}
      alt={say`Photo ${number}`}
      onError={() => {
        // Offline, the small version is shown if it was prefetched.
        if (kept === null)
          void import('./smallPhotos.ts').then(({ keptPhoto }) => keptPhoto(id)).then(setKept);
      }}
    />
  );
}

interface Props {
  readonly photos: readonly string[];
  /** Undefined: read-only. */
  readonly set?: (photos: readonly string[]) => void;
  readonly label: string;
  readonly most?: number;
}

/** Photos of a station or a panel, from the camera or files. */
export function PhotoRow({ photos, set, label, most = MOST_PHOTOS }: Props) {
  const [fault, setFault] = useState<string | null>(null);
  const [left, setLeft] = useState(0);
  const bring = () =>
    void sendWaiting().then(setLeft, (error: unknown) =>
      setFault(error instanceof Error ? say`Not saved: ${error.message}.` : say`Not saved.`),
    );
  useEffect(() => {
    bring();
    const trying = setInterval(bring, RETRY_MILLISECONDS);
    return () => clearInterval(trying);
  }, []);
  const take = async (files: readonly File[]) => {
    setFault(null);
    const room = most - photos.length;
    const made: string[] = [];
    for (const file of files.slice(0, room)) {
      try {
        made.push(await keepPhoto(file));
      } catch (error) {
        setFault(error instanceof Error ? say`Not added: ${error.message}.` : say`Not added.`);
      }
    }
    if (files.length > room)
      setFault(say`At most ${most} photos are allowed. The rest were not added.`);
    if (made.length === 0) return;
    set?.([...photos, ...made]);
    setLeft((before) => before + made.length);
    bring();
  };
  return (
    <div className="photos row near" role="group" aria-label={label}>
      {photos.map((id, i) => (
        <span key={id} className="row near in-line">
          <Picture id={id} number={i + 1} left={left} />
          {set && (
            <Button
              aria-label={say`Delete photo ${i + 1}`}
              onClick={() => set(photos.filter((one) => one !== id))}
            >
              ×
            </Button>
          )}
        </span>
      ))}
      {set && photos.length < most && (
        <FileButton
          label={say`Add a photo`}
          accept="image/*"
          several={most > 1}
          take={(files) => void take(files)}
        />
      )}
      {left > 0 && (
        <span className="soft" role="status">
          {say`${left} uploading`}
        </span>
      )}
      {fault && (
        <p className="fault" role="alert">
          {fault}
        </p>
      )}
    </div>
  );
}
