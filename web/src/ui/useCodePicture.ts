import type { QRCodeToDataURLOptions } from 'qrcode';
import { useEffect, useState } from 'react';

/** A text as a picture that telephones read (QR code, ISO/IEC 18004), as a data address; empty until it is drawn. */
export function useCodePicture(
  text: string,
  { margin, width }: Pick<QRCodeToDataURLOptions, 'margin' | 'width'>,
): string {
  const [picture, setPicture] = useState('');
  useEffect(() => {
    let isHere = true;
    void import('qrcode')
      .then(({ toDataURL }) => toDataURL(text, { margin, width, errorCorrectionLevel: 'M' }))
      .then((made) => isHere && setPicture(made));
    return () => {
      isHere = false;
    };
  }, [text, margin, width]);
  return picture;
}
