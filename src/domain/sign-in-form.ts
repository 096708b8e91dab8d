import { z } from 'zod';

export const SignInForm = z.object({
  email: z.email('Type your e-mail address, for example name@school.example.').max(200),
  password: z.string().min(1, 'Type your password.').max(400, 'A password has at most 400 characters.'),
  /** Of the second factor, where the account has one; asked for once the password is right. */
  code: z.string().max(40).default(''),
});
