import { useRef } from 'react';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { say } from '../wire/words.ts';

interface PictureInputProps {
  /** What is shown now; null for none. */
  readonly src: string | null;
  /** What it is a picture of, in words. */
  readonly name: string;
  /** The box it is made to fit, px; filled for portraits, fitted in for logos. */
  readonly box: { readonly width: number; readonly height: number; readonly fills: boolean };
  readonly busy: boolean;
  /** Sets it, in Base64; null takes it away. */
  readonly set: (picture: string | null) => void;
}

/** A picture that is chosen, made small on this device, and taken away. */
export function PictureInput({ src, name, box, busy, set }: PictureInputProps) {
  const input = useRef<HTMLInputElement>(null);
  const choose = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    try {
      set(await madeSmall(file, box));
    } catch {
      toast.error(say('pictures:cannotRead'));
    }
  };
  return (
    <div className="mt-2 flex flex-wrap items-center gap-3">
      {src ? (
        <img src={src} alt={name} className="max-h-24 max-w-60 rounded-[3px] border border-rule bg-white" />
      ) : null}
      <input
        ref={input}
        type="file"
        accept="image/png,image/jpeg,image/webp"
        aria-label={name}
        className="sr-only"
        tabIndex={-1}
        onChange={({ target }) => {
          void choose(target.files?.[0]);
          target.value = '';
        }}
      />
      <Button disabled={busy} onClick={() => input.current?.click()}>
        {say(src ? 'pictures:chooseAnother' : 'pictures:choose')}
      </Button>
      {src ? (
        <Button disabled={busy} onClick={() => set(null)}>
          {say('pictures:remove')}
        </Button>
      ) : null}
    </div>
  );
}

/** A picture in its box, without what a camera writes beside it: where it was taken, and when. */
async function madeSmall(file: File, { width, height, fills }: PictureInputProps['box']): Promise<string> {
  const picture = await createImageBitmap(file);
  const scales = [width / picture.width, height / picture.height];
  const factor = fills ? Math.max(...scales) : Math.min(1, ...scales);
  const [w, h] = [Math.round(picture.width * factor), Math.round(picture.height * factor)];
  const canvas = document.createElement('canvas');
  canvas.width = fills ? width : w;
  canvas.height = fills ? height : h;
  const context = canvas.getContext('2d');
  if (!context) throw new Error('no canvas');
  context.drawImage(picture, (canvas.width - w) / 2, (canvas.height - h) / 2, w, h);
  return canvas.toDataURL(fills ? 'image/jpeg' : 'image/png', 0.85).replace(/^.*,/, '');
}
