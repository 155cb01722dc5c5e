import { zodResolver } from '@hookform/resolvers/zod'
import { NewPerson, ROLES } from '@upper-field/contract'
import { useForm } from 'react-hook-form'
import { useAddPersonMutation } from '../api'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { SelectField, TextField } from '../kit/Field'
import { Refused } from '../shell/Answer'
import { ROLE } from './Accounts'

/** A new account: its first password is told to the person, who then takes another. */
export function AddPerson({ onClose }: { onClose: () => void }) {
  const [add, adding] = useAddPersonMutation()
  const { register, handleSubmit, formState } = useForm({
    resolver: zodResolver(NewPerson),
    defaultValues: { name: '', email: '', password: '', role: 'operator' as const },
  })
  const { errors } = formState
  const submit = handleSubmit(async (body) => {
    const result = await add({ body })
    if (!result.error) onClose()
  })
  return (
    <Dialog title="Add a person" isOpen onClose={onClose}>
      <form onSubmit={submit} noValidate className="flex flex-col gap-3">
        <TextField label="Name" autoFocus error={errors.name?.message} {...register('name')} />
        <TextField label="E-mail" type="email" error={errors.email?.message} {...register('email')} />
        <TextField
          label="First password"
          type="password"
          autoComplete="new-password"
          hint="At least 10 characters. Tell it to them; under “Your account” they take one of their own."
          error={errors.password?.message}
          {...register('password')}
        />
        <SelectField label="Role" {...register('role')}>
          {ROLES.map((role) => (
            <option key={role} value={role}>
              {ROLE[role]}
            </option>
          ))}
        </SelectField>
        <Refused by={[adding]} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" disabled={adding.isLoading}>
            Add the person
          </Button>
        </div>
      </form>
    </Dialog>
  )
}
