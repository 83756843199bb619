'use client';

import { nameOfFile } from '@/core/files/kinds';
import type { FileSubject } from '@/queries/company/files';
import type { KeptFile } from '@/store/files';
import { useAct } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';
import { AddFile } from './AddFile';

/** @example sizeInWords(31_457_280) // '30 MB' */
export const sizeInWords = (size: number): string =>
  size < 1024 * 1024 ? `${Math.max(1, Math.round(size / 1024))} kB` : `${Math.round(size / 1024 / 1024)} MB`;

/** The drawings and documents about one thing, and a way to bring in more. */
export function FilesAbout({ subject, files }: { subject: FileSubject; files: readonly KeptFile[] }) {
  const { may } = useYard();
  const act = useAct(acts.removeFile, { said: () => 'File removed' });
  return (
    <>
      <h2 className="mt-5 mb-1 text-[16px]">Drawings and documents</h2>
      {files.length === 0 && <p className="mb-2 text-ink-2">No files yet. Files here can be attached to orders.</p>}
      <ul className="mb-2">
        {files.map((f) => (
          <li key={f.id} className="flex items-baseline gap-2 border-b border-line-2 py-1 max-phone:py-3.5">
            <a
              href={`/documents/${f.id}`}
              target="_blank"
              rel="noreferrer"
              className="mono min-w-0 break-all text-copper-text hover:underline"
            >
              {f.name}
            </a>
            <span className="text-[12.5px] whitespace-nowrap text-ink-2">
              {f.revision !== '' && `rev. ${f.revision} · `}
              {sizeInWords(f.size)}
            </span>
            {may('keep files') && (
              <button
                type="button"
                className="ml-auto text-[12.5px] text-ink-2 hover:text-brick"
                aria-label={`Remove ${nameOfFile(f)}`}
                disabled={act.busy}
                onClick={() => void act.run({ documentId: f.id, out: true })}
              >
                Remove
              </button>
            )}
          </li>
        ))}
      </ul>
      {may('keep files') && <AddFile subjects={[subject]} />}
    </>
  );
}
