import { useCodePicture } from '../../ui/useCodePicture.ts';
import { say } from '../../wire/words.ts';

/** A link as a picture that telephones read (QR code), to look at and to print. */
export default function LinkPicture({ link, name }: { link: string; name: string }) {
  const picture = useCodePicture(link, { margin: 2, width: 600 });
  if (picture === '') return null;
  return (
    <p className="mt-3 flex flex-wrap items-end gap-4">
      <img
        src={picture}
        alt={say('workshop:doors.codeOf', { link })}
        width={180}
        height={180}
        className="border border-rule"
      />
      <a href={picture} download={`${name}.png`}>
        {say('workshop:doors.saveCode')}
      </a>
    </p>
  );
}
