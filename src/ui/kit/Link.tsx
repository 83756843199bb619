'use client';

import NextLink from 'next/link';
import { useState, type ComponentProps } from 'react';

/** A link whose page is fetched ahead once somebody means to go there, and not because it is in sight. */
export default function Link(props: ComponentProps<typeof NextLink>) {
  const [meant, setMeant] = useState(false);
  return (
    <NextLink
      {...props}
      prefetch={meant ? null : false}
      onMouseEnter={(e) => {
        setMeant(true);
        props.onMouseEnter?.(e);
      }}
      onFocus={(e) => {
        setMeant(true);
        props.onFocus?.(e);
      }}
    />
  );
}
