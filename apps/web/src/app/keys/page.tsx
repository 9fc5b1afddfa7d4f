import type { Metadata } from 'next';
import { Frame } from '@/ui/Frame';
import { KEY_HELP } from './keyHelp';
import { KeyList } from '@/ui/KeyList';

export const metadata: Metadata = { title: 'Keys' };

/** All keys of all screens. */
export default function Page() {
  return (
    <Frame stage="Gather" plan={null}>
      <div className="h-full overflow-auto">
        <div className="mx-auto max-w-[1240px] px-8 py-7">
          <h1 className="font-serif text-[26px] font-semibold">Keys</h1>
          <div className="mt-5 columns-1 gap-10 lg:columns-2">
            {Object.entries(KEY_HELP).map(([screen, keys]) => (
              <section key={screen} className="mb-7 break-inside-avoid">
                <h2 className="mb-2 font-serif text-[19px] font-semibold">{screen}</h2>
                <KeyList keys={keys} />
              </section>
            ))}
          </div>
        </div>
      </div>
    </Frame>
  );
}
