/** Where the portrait of somebody is read: by what changes when it does, so that it is kept until then. */
export const portraitOf = (id: string, portrait: string | null): string | null =>
  portrait === null ? null : `/api/people/${id}/portrait?v=${portrait}`;

/** A small portrait beside a name; nothing where there is none. */
export const Face = ({ src, className = 'size-6' }: { src: string | null; className?: string }) =>
  src === null ? null : (
    <img src={src} alt="" className={`inline-block shrink-0 rounded-[3px] object-cover ${className}`} />
  );
