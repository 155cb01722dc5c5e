import { zodResolver } from '@hookform/resolvers/zod'
import { PasswordChange } from '@upper-field/contract'
import { useForm } from 'react-hook-form'
import { useChangePasswordMutation } from '../api'
import { Button } from '../kit/Button'
import { TextField } from '../kit/Field'
import { Notice } from '../kit/Notice'
import { Refused } from '../shell/Answer'

/** One's own password; whoever is signed in elsewhere with the old one is signed out. */
export function ChangePassword() {
  const [change, changing] = useChangePasswordMutation()
  const { register, handleSubmit, formState, reset } = useForm({
    resolver: zodResolver(PasswordChange),
    defaultValues: { old: '', new: '' },
  })
  const { errors } = formState
  const submit = handleSubmit(async (body) => {
    const result = await change({ body })
    if (!result.error) reset()
  })
  return (
    <section aria-label="Your password" className="max-w-sm">
      <h2 className="pb-2 text-[15px]">Your password</h2>
      <form onSubmit={submit} noValidate className="flex flex-col gap-3">
        <TextField
          label="Old password"
          type="password"
          autoComplete="current-password"
          error={errors.old?.message}
          {...register('old')}
        />
        <TextField
          label="New password"
          type="password"
          autoComplete="new-password"
          hint="At least 10 characters, and none of those that are guessed first. Other sessions of yours end."
          error={errors.new?.message}
          {...register('new')}
        />
        <Refused by={[changing]} />
        {changing.isSuccess ? <Notice tone="told">Your password was changed.</Notice> : null}
        <Button type="submit" className="self-start" disabled={changing.isLoading}>
          Change the password
        </Button>
      </form>
    </section>
  )
}
