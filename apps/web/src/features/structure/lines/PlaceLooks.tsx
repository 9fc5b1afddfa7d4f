'use client';
import type { PlaceStyle } from '@clembo/core';
import { CATEGORIES } from '@clembo/scene/ink';

/** How a station or a zone is drawn: its colour and its style; the usual where nothing is chosen. */
export function PlaceLooks({
  label,
  colour,
  style,
  usual,
  onChange,
}: {
  label: string;
  colour: string | undefined;
  style: PlaceStyle | undefined;
  /** How it is drawn where no style is chosen. */
  usual: string;
  onChange: (looks: { colour?: string | undefined; style?: PlaceStyle | undefined }) => void;
}) {
  return (
    <span className="flex items-center gap-1.5">
      <span className="relative inline-block size-5">
        <input
          type="color"
          aria-label={`Colour of ${label}`}
          key={colour ?? ''}
          defaultValue={colour ?? CATEGORIES[0]}
          onBlur={(e) => {
            const chosen = e.target.value.toUpperCase();
            if (chosen !== (colour ?? CATEGORIES[0]!).toUpperCase()) onChange({ colour: chosen });
          }}
          className={`size-5 cursor-pointer rounded border border-line p-0 ${colour ? '' : 'opacity-30'}`}
        />
      </span>
      {colour && (
        <button
          type="button"
          aria-label={`Usual colour for ${label}`}
          className="text-[13px] text-soft underline underline-offset-2"
          onClick={() => onChange({ colour: undefined })}
        >
          usual
        </button>
      )}
      <select
        aria-label={`Style of ${label}`}
        value={style ?? ''}
        onChange={(e) => onChange({ style: (e.target.value || undefined) as PlaceStyle | undefined })}
        className="w-30 rounded-md border border-line bg-paper px-1 py-0.5 text-[14px]"
      >
        <option value="">{usual}</option>
        <option value="solid">solid line</option>
        <option value="dashed">dashed edges</option>
        <option value="scale">only at the scale</option>
      </select>
    </span>
  );
}
