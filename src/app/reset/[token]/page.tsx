import { Doorstep } from '@/ui/frame/Doorstep';
import { ResetForm } from './ResetForm';

export const metadata = { title: 'New password' };

export default async function Reset({ params }: { params: Promise<{ token: string }> }) {
  return (
    <Doorstep title="Choose a new password" width="max-w-[420px]">
      <ResetForm token={(await params).token} />
    </Doorstep>
  );
}
