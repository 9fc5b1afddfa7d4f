'use client';
import type { Picture } from '@clembo/scene/brief';
import { useState } from 'react';
import { pictureOf } from '../pictureOf';
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
