import { redirect } from 'next/navigation';
import { findCompany } from '@/store/company';
import { Wordmark } from '@/ui/frame/Band';
import { readers } from '@/server/readers';
import { SetUpForm } from './SetUpForm';

export const metadata = { title: 'Set up' };

export default async function Welcome() {
  if (await findCompany(await readers())) redirect('/sign-in');
  return (
    <main className="min-h-dvh bg-rim px-4 py-8">
      <div className="mx-auto w-full max-w-[820px]">
        <Wordmark />
        <div className="mt-4 rounded-xl bg-glaze p-6 shadow-2xl">
          <h1 className="text-[24px]">Set up your company</h1>
          <p className="mb-5 text-ink-2">
            This file is empty. Name the company and yourself; you can add people, suppliers and items afterwards.
          </p>
          <SetUpForm />
        </div>
      </div>
    </main>
  );
}
