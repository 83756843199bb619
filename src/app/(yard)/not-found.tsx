import Link from '@/ui/Link';
import { Empty, Sheet } from '@/ui/kit/Sheet';

export default function NotFound() {
  return (
    <Sheet>
      <Empty title="There is nothing here">
        The number may be mistyped, or it was never used. Press / to find it, or go back to the{' '}
        <Link href="/" className="step">
          Desk
        </Link>
        .
      </Empty>
    </Sheet>
  );
}
