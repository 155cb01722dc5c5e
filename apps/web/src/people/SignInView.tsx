import { zodResolver } from '@hookform/resolvers/zod'
import { NewOwner } from '@upper-field/contract'
import { useState } from 'react'
import { useForm } from 'react-hook-form'
import { useNavigate, useSearchParams } from 'react-router'
import { z } from 'zod'
import { api, problemText, useEnterDemoMutation, useMakeOwnerMutation, useReadSetupQuery } from '../api'
import { Button } from '../kit/Button'
import { TextField } from '../kit/Field'
import { Notice } from '../kit/Notice'
import { Refused } from '../shell/Answer'
import { useAppDispatch } from '../store'
import { Hillside } from './Hillside'

/** The door: sign in, enter the demo with one click, or make the owner at the first start. */
export function SignInView() {
  const { data: setup, error, refetch } = useReadSetupQuery({})
  return (
    <div className="relative flex h-full items-center justify-center overflow-hidden">
      <Hillside />
      <main className="relative w-[380px] max-w-[94vw] rounded-small border border-line bg-surface p-6">
        <p className="font-heading text-[26px] font-bold leading-8">Upper Field</p>
        <p className="pb-5 text-soft">
          From a messy prospect list to numbers you can text or dial, and audiences that match.
        </p>
        <Refused by={[{ error, refetch }]} />
        {setup?.demo ? <DemoDoor name={setup.demo.name} /> : null}
        {setup ? setup.needsOwner ? <OwnerForm /> : <SignInForm isSecond={setup.demo !== null} /> : null}
      </main>
    </div>
  )
}

function useEnter(): () => Promise<void> {
  const navigate = useNavigate()
  const dispatch = useAppDispatch()
  const [search] = useSearchParams()
  return async () => {
    dispatch(api.util.resetApiState())
    const then = search.get('then') ?? '/lists'
    await navigate(then.startsWith('/') && !then.startsWith('//') ? then : '/lists', { replace: true })
  }
}

function DemoDoor({ name }: { name: string }) {
  const [enterDemo, { isLoading, error }] = useEnterDemoMutation()
  const enter = useEnter()
  return (
    <div className="flex flex-col gap-2 pb-5">
      <Button
        look="main"
        className="min-h-10"
        autoFocus
        disabled={isLoading}
        onClick={async () => {
          const result = await enterDemo({})
          if (!result.error) await enter()
        }}
      >
        Enter as {name}
      </Button>
      <p className="text-[13px] text-soft">
        The made-up operator of this demo. All people, companies and numbers in it are made up.
      </p>
      <Refused by={[{ error }]} />
    </div>
  )
}

const Credentials = z.object({
  email: z.email('An e-mail address, please.'),
  password: z.string().min(1, 'The password is missing.'),
})

function SignInForm({ isSecond }: { isSecond: boolean }) {
  const enter = useEnter()
  const [problem, setProblem] = useState<string | null>(null)
  const { register, handleSubmit, formState } = useForm({
    resolver: zodResolver(Credentials),
    defaultValues: { email: '', password: '' },
  })
  const submit = handleSubmit(async (credentials) => {
    setProblem(null)
    const response = await fetch('/api/auth/sign-in/email', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(credentials),
    }).catch(() => null)
    if (response?.ok) return enter()
    setProblem(sentenceFor(response?.status))
  })
  return (
    <form onSubmit={submit} noValidate className="flex flex-col gap-3">
      {isSecond ? <h1 className="text-[15px]">Or sign in</h1> : <h1>Sign in</h1>}
      <TextField
        label="E-mail"
        type="email"
        autoComplete="username"
        error={formState.errors.email?.message}
        {...register('email')}
      />
      <TextField
        label="Password"
        type="password"
        autoComplete="current-password"
        error={formState.errors.password?.message}
        {...register('password')}
      />
      {problem ? <Notice tone="bad">{problem}</Notice> : null}
      <Button type="submit" look={isSecond ? 'plain' : 'main'} disabled={formState.isSubmitting}>
        Sign in
      </Button>
    </form>
  )
}

function sentenceFor(status: number | undefined): string {
  if (status === 429) return 'Too many attempts from here. Wait a minute and try again.'
  if (status === 401) return 'E-mail and password do not belong together.'
  return 'The application cannot be reached. Try again.'
}

function OwnerForm() {
  const [makeOwner] = useMakeOwnerMutation()
  const enter = useEnter()
  const [problem, setProblem] = useState<string | null>(null)
  const { register, handleSubmit, formState } = useForm({
    resolver: zodResolver(NewOwner),
    defaultValues: { code: '', name: '', email: '', password: '' },
  })
  const submit = handleSubmit(async (owner) => {
    const made = await makeOwner({ body: owner })
    if (made.error) return setProblem(problemText(made.error))
    const { email, password } = owner
    const response = await fetch('/api/auth/sign-in/email', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ email, password }),
    })
    if (response.ok) await enter()
  })
  return (
    <form onSubmit={submit} noValidate className="flex flex-col gap-3">
      <h1>Make the owner</h1>
      <p className="text-soft">
        Nobody has an account here yet. The code stands in the terminal where the application was started.
      </p>
      <TextField label="Code" autoComplete="off" error={formState.errors.code?.message} {...register('code')} />
      <TextField label="Name" autoComplete="name" error={formState.errors.name?.message} {...register('name')} />
      <TextField
        label="E-mail"
        type="email"
        autoComplete="username"
        error={formState.errors.email?.message}
        {...register('email')}
      />
      <TextField
        label="Password"
        type="password"
        autoComplete="new-password"
        hint="At least 10 characters."
        error={formState.errors.password?.message}
        {...register('password')}
      />
      {problem ? <Notice tone="bad">{problem}</Notice> : null}
      <Button type="submit" look="main" disabled={formState.isSubmitting}>
        Make the owner and sign in
      </Button>
    </form>
  )
}
