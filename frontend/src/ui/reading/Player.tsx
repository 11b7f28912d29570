/** Sound or video played in the page. Students' own recordings have no captions; a transcript stands beside them where there is one. */
interface Props {
  video: boolean;
  src: string;
  label: string;
  className?: string;
}

export function Player({ video, src, label, className = "" }: Props) {
  if (!video) {
    // eslint-disable-next-line jsx-a11y/media-has-caption -- nobody has written captions of it; see above
    return <audio controls preload="metadata" src={src} aria-label={label} className={`w-full ${className}`} />;
  }
  // eslint-disable-next-line jsx-a11y/media-has-caption -- nobody has written captions of it; see above
  return <video controls preload="metadata" src={src} aria-label={label} className={`max-w-full rounded-md bg-shade ${className}`} />;
}
