'use client';
import { useEffect, useState } from 'react';

/** A text as a picture for the camera of another device, drawn here; nothing is sent anywhere. */
export function Qr({ text, label }: { text: string; label: string }) {
  const [picture, setPicture] = useState('');
  useEffect(() => {
    let here = true;
    void import('qrcode')
      .then((qr) => qr.toString(text, { type: 'svg', margin: 2, errorCorrectionLevel: 'M' }))
      .then((svg) => {
        if (here) setPicture(`data:image/svg+xml;utf8,${encodeURIComponent(svg)}`);
      });
    return () => {
      here = false;
    };
  }, [text]);
  // Drawn by the browser from a text: there is nothing for the image service to make smaller.
  // eslint-disable-next-line @next/next/no-img-element
  return picture ? <img src={picture} alt={label} width={176} height={176} className="qr" /> : <span className="qr" />;
}
