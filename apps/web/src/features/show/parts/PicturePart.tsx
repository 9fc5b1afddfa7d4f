'use client';
import { MOST_PICTURE, type Picture } from '@clembo/scene/brief';
import { useState } from 'react';
import { PartPanel, type SaidPart } from './PartPanel';

interface Props extends SaidPart {
  picture: Picture | null;
  onChange: (picture: Picture | null) => void;
}

/** A part that is a picture, such as a logo. */
export function PicturePart({ part, label, text, picture, onChange }: Props) {
  return (
    <PartPanel part={part} label={label} text={text}>
      {(close) => <Choice picture={picture} onChange={onChange} onClose={close} />}
    </PartPanel>
  );
}

/** Pixels of the longer side, one after the other, until the picture is small enough to be kept. */
const SIDES = [600, 420, 300, 200];

/** A picture of a file, made small enough for a page. Throws words for whoever chose it. */
async function pictureOf(file: File): Promise<Picture> {
  const image = new Image();
  const address = URL.createObjectURL(file);
  try {
    image.src = address;
    await image.decode().catch(() => {
      throw new Error(`“${file.name}” is no picture that can be read. Choose a PNG, JPEG or SVG file.`);
    });
    // A drawing without a size of its own says 0.
    const [w, h] = [image.naturalWidth || 300, image.naturalHeight || 150];
    for (const side of SIDES) {
      const factor = Math.min(1, side / Math.max(w, h));
      const canvas = document.createElement('canvas');
      canvas.width = Math.max(1, Math.round(w * factor));
      canvas.height = Math.max(1, Math.round(h * factor));
      canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
      const data = canvas.toDataURL('image/png');
      if (data.length <= MOST_PICTURE) return { data, width: canvas.width, height: canvas.height };
    }
    throw new Error(`“${file.name}” has too much detail for a logo. Choose a simpler picture.`);
  } finally {
    URL.revokeObjectURL(address);
  }
}

function Choice({ picture, onChange, onClose }: Pick<Props, 'picture' | 'onChange'> & { onClose: () => void }) {
  const [trouble, setTrouble] = useState('');
  const take = async (file: File | undefined) => {
    if (!file) return;
    try {
      onChange(await pictureOf(file));
      onClose();
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  return (
    <div className="flex w-80 flex-col gap-2 text-[15px]">
      {picture && <img src={picture.data} alt="The picture now" className="max-h-24 self-start border border-line" />}
      <input
        type="file"
        aria-label="Picture file"
        accept="image/png,image/jpeg,image/svg+xml"
        onChange={(e) => void take(e.target.files?.[0])}
      />
      {trouble !== '' && (
        <p role="alert" className="text-madder">
          {trouble}
        </p>
      )}
      {picture && (
        <button
          type="button"
          className="quiet self-end py-0.5"
          onClick={() => {
            onChange(null);
            onClose();
          }}
        >
          Take it away
        </button>
      )}
    </div>
  );
}
