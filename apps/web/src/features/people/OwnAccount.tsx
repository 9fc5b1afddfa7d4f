'use client';
import { ask } from '@/ui/ask';
import { Form, TextField } from '@/ui/Form';
import { Frame } from '@/ui/Frame';
import { toast } from '@/ui/Toasts';
import { NEW_PASSWORD } from './Entrances';

/** One's own name and password. */
export function OwnAccount({ name, email }: { name: string; email: string }) {
  return (
    <Frame stage={null} plan={null}>
      <div className="mx-auto max-w-[960px] px-8 pt-7">
        <h1 className="font-serif text-[26px] font-semibold">Name and password</h1>
        <p className="mt-1 text-soft">{email}</p>
        <div className="mt-6 grid grid-cols-2 gap-10">
          <section aria-label="Name">
            <Form
              action="Keep it"
              onSubmit={async (v) => {
                await ask('/api/me', { method: 'PATCH', json: { name: v.name } });
                location.reload();
              }}
            >
              <TextField label="Your name, as others see it" name="name" defaultValue={name} maxLength={100} />
            </Form>
          </section>
          <section aria-label="Password">
            <Form
              action="Change the password"
              onSubmit={async ({ before, password }) => {
                await ask('/api/me', { method: 'PATCH', json: { before, password } });
                toast('The password is changed. You are signed out everywhere else.');
              }}
            >
              <TextField
                label="The password that you have"
                name="before"
                type="password"
                autoComplete="current-password"
              />
              <TextField label="The new one" name="password" {...NEW_PASSWORD} />
            </Form>
          </section>
        </div>
      </div>
    </Frame>
  );
}
