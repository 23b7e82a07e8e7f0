import { Box, Button, Field, Heading, Input } from '@chakra-ui/react';
import { useMutation } from '@tanstack/react-query';
import { useEffect } from 'react';
import { useForm } from 'react-hook-form';
import { api } from '../api.ts';
import { PasswordInput } from '../kit/PasswordInput.tsx';
import { useSetMe } from './use-me.ts';

interface Values {
  name: string;
  password: string;
}

/** Name and password, before anything of the shop is seen. */
export function SignInPage() {
  const setMe = useSetMe();
  const { register, handleSubmit, formState } = useForm<Values>();
  const enter = useMutation({
    mutationFn: ({ name, password }: Values) => api.signIn(name, password),
    onSuccess: setMe,
  });
  useEffect(() => {
    document.title = 'Sign in · Yellow Pin';
  }, []);
  return (
    <Box as="main" minHeight="100vh" display="grid" placeItems="center" padding="20px">
      <Box
        asChild
        width="340px"
        maxWidth="100%"
        background="sheet"
        borderWidth="1.5px"
        borderColor="ink"
        borderRadius="6px"
        padding="24px"
        display="grid"
        gap="14px"
      >
        <form onSubmit={(e) => void handleSubmit((v) => enter.mutate(v))(e)} noValidate>
          <Heading as="h1" textStyle="title" display="flex" gap="10px" alignItems="center">
            <img src="/pin.svg" alt="" width={28} height={28} /> Yellow Pin
          </Heading>
          <Field.Root invalid={Boolean(formState.errors.name)}>
            <Field.Label>name</Field.Label>
            <Input autoComplete="username" autoFocus {...register('name', { required: 'Who are you?' })} />
            <Field.ErrorText>{formState.errors.name?.message}</Field.ErrorText>
          </Field.Root>
          <Field.Root invalid={Boolean(formState.errors.password)}>
            <Field.Label>password</Field.Label>
            <PasswordInput
              autoComplete="current-password"
              {...register('password', { required: 'The password is missing.' })}
            />
            <Field.ErrorText>{formState.errors.password?.message}</Field.ErrorText>
          </Field.Root>
          {enter.isError && (
            <Box role="alert" color="error" fontSize="14px">
              {enter.error.message}
            </Box>
          )}
          <Button type="submit" variant="solid" loading={enter.isPending}>
            Sign in
          </Button>
        </form>
      </Box>
    </Box>
  );
}
