import { redirect } from 'next/navigation';
import { ROLE_NAMES } from '@/core/people/rights';
import { PEOPLE } from '@/demo/catalogue';
import { findCompany } from '@/store/company';
import { Wordmark } from '@/ui/frame/Band';
import { stepInAs } from '../actions/signingIn';
import { whoIsHere } from '../server/session';
import { isDemo } from '@/server/setting';
import { readers } from '@/server/readers';
import { SignInForm } from './SignInForm';

export const metadata = { title: 'Sign in' };

export default async function SignIn() {
  if (await whoIsHere()) redirect('/');
  const company = await findCompany(await readers());
  if (company === undefined) redirect('/welcome');
  return (
    <main className="grid min-h-dvh place-items-center bg-rim px-4 py-10">
      <div className="w-full max-w-[780px]">
        <div className="mb-5 flex items-baseline justify-between">
          <Wordmark />
          <span className="text-on-rim-2">{company.name}</span>
        </div>
        <div className="grid overflow-hidden rounded-xl bg-glaze shadow-2xl sm:grid-cols-[1fr_1.15fr]">
          <div className="p-6">
            <h1 className="mb-4 text-[23px]">Sign in</h1>
            <SignInForm />
          </div>
          <div className="border-line bg-glaze-2 p-6 max-sm:border-t sm:border-l">
            {isDemo() ? (
              <>
                <h2 className="text-[17px]">Or try it as</h2>
                <p className="mb-3 text-ink-2">Sample company: nothing here is real.</p>
                <ul className="grid gap-1.5">
                  {PEOPLE.map((p) => (
                    <li key={p.key}>
                      <form action={stepInAs.bind(null, p.key)}>
                        <button type="submit" className="btn btn-plain w-full justify-between">
                          <span>{p.name}</span>
                          <span className="font-normal text-ink-2">{p.roles.map((r) => ROLE_NAMES[r]).join(', ')}</span>
                        </button>
                      </form>
                    </li>
                  ))}
                </ul>
              </>
            ) : (
              <>
                <h2 className="mb-2 text-[17px]">Every purchase on its job’s tab</h2>
                <p className="text-ink-2">
                  Planned, drafted, on order, received, actual: one amount, one place, against the budget.
                </p>
              </>
            )}
          </div>
        </div>
      </div>
    </main>
  );
}
