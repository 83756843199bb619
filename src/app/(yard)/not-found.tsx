import Link from '@/ui/kit/Link';
import { Empty, Sheet } from '@/ui/kit/Sheet';

export default function NotFound() {
  return (
    <Sheet>
      <Empty title="Not found">
        The number may be mistyped or never used. Press / to search, or go back to the{' '}
        <Link href="/" className="step">
          Desk
        </Link>
        .
      </Empty>
    </Sheet>
  );
}
