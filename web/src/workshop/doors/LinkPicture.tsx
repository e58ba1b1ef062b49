import { toDataURL } from 'qrcode';
import { useEffect, useState } from 'react';
import { say } from '../../wire/words.ts';

/** A link as a picture that telephones read (QR code), to look at and to print. */
export default function LinkPicture({ link, name }: { link: string; name: string }) {
  const [picture, setPicture] = useState('');
  useEffect(() => {
    let isHere = true;
    void toDataURL(link, { margin: 2, width: 600, errorCorrectionLevel: 'M' }).then(
      (made) => isHere && setPicture(made),
    );
    return () => {
      isHere = false;
    };
  }, [link]);
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
