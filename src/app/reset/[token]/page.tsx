import { Wordmark } from '@/ui/frame/Band';
import { ResetForm } from './ResetForm';

export const metadata = { title: 'New password' };

export default async function Reset({ params }: { params: Promise<{ token: string }> }) {
  return (
    <main className="grid min-h-dvh place-items-center bg-rim px-4 py-10">
      <div className="w-full max-w-[420px]">
        <Wordmark />
        <div className="mt-4 rounded-xl bg-glaze p-6 shadow-2xl">
          <h1 className="mb-4 text-[23px]">Choose a new password</h1>
          <ResetForm token={(await params).token} />
        </div>
      </div>
    </main>
  );
}
