import { redirect } from 'next/navigation';
import { foundingCountries } from '@/formats/taxes';
import { findCompany } from '@/store/company';
import { Doorstep } from '@/ui/frame/Doorstep';
import { readers } from '@/server/readers';
import { SetUpForm } from './SetUpForm';

export const metadata = { title: 'Set up' };

export default async function Welcome() {
  if (await findCompany(await readers())) redirect('/sign-in');
  return (
    <Doorstep title="Set up your company" width="max-w-[820px]">
      <p className="mb-5 text-ink-2">Set up your company to begin. You can add people, suppliers and items later.</p>
      <SetUpForm countries={await foundingCountries()} />
    </Doorstep>
  );
}
