'use client';
import { useEffect, useState } from 'react';

const KEY = 'clembo.follow';

/** Whether what follows goes along when something is moved by hand in a plan with given dates; kept in this browser. */
export function useFollow(): [boolean, (follow: boolean) => void] {
  const [follow, setFollow] = useState(true);
  useEffect(() => setFollow(localStorage.getItem(KEY) !== 'no'), []);
  return [
    follow,
    (wanted) => {
      setFollow(wanted);
      localStorage.setItem(KEY, wanted ? 'yes' : 'no');
    },
  ];
}
